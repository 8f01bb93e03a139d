import i18next, { type ParseKeys, type TFunction } from 'i18next'

/** The name of a message: one the catalogue has, or it does not compile. */
export type MessageKey = ParseKeys

/** Where names go on with an id the core or the server gives: a test walks every id there is, since the compiler cannot. */
type OpenGroup =
  | `why.${'rule' | 'meaning' | 'value' | 'because'}`
  | `parts.${'rule' | 'reason'}`
  | `catalogue.${'field' | 'hint' | 'choice'}`
  | `imports.${'code' | 'stopped'}`
  | `orders.${'away' | 'problem'}`
  | 'acts'
  | 'bike.takenOffReason'
  | 'rules.group'
  | 'chains.click'
type Values = Readonly<Record<string, unknown>>
type Loose = (key: string, values?: Values) => string

/** A message with values of which only what is told says which are wanted, such as those of a job's step. */
export const saidWith = (t: TFunction, key: MessageKey, values: Values): string => (t as Loose)(key, values)

/** What is said of an id, as `why.rule` has it of a rule of the core. */
export const saidOf = (t: TFunction, group: OpenGroup, id: string, values: Values = {}): string =>
  (t as Loose)(`${group}.${id}`, values)

/** The sentence of a problem. One these words do not have, as of a server newer than this page, is said in general. */
export const problemText = (t: TFunction, code: string, values: Values = {}): string =>
  (t as Loose)(i18next.exists(`problems.${code}`) ? `problems.${code}` : 'problems.field-invalid', values)

/** The same, where nobody has `t` at hand; null where these words do not have it. */
export const problemSaid = (code: string, values: Values): string | null =>
  i18next.exists(`problems.${code}`) ? (i18next.t as Loose)(`problems.${code}`, values) : null
