import { problems, type ProblemCode } from '@pelrin/contract/messages'
import type { FieldProblem, Problem } from '@pelrin/contract'
import i18next from 'i18next'

const messages = i18next.createInstance()
await messages.init({
  lng: 'en',
  resources: { en: { problems } },
  ns: ['problems'],
  defaultNS: 'problems',
  keySeparator: false,
  nsSeparator: false,
  interpolation: { escapeValue: false },
})

type Values = Record<string, string | number>

/** The sentence for a code. An unknown code gets the general one. */
export function sentence(code: string, values: Values = {}): string {
  return messages.t(code in problems ? code : 'field-invalid', values)
}

const told = (values: Values): { readonly values?: Values } => (Object.keys(values).length === 0 ? {} : { values })

/** Something wrong with one field. */
export function atField(path: string, code: ProblemCode, values: Values = {}): FieldProblem {
  return { path, code, ...told(values), detail: sentence(code, values) }
}

/** A failure the caller can do something about. Anything else thrown is a fault of ours. */
export class ProblemError extends Error {
  readonly fields: readonly FieldProblem[]
  readonly current: unknown
  readonly values: Values
  readonly retryAfterSeconds: number | undefined

  constructor(
    readonly status: number,
    readonly code: ProblemCode,
    more: { fields?: readonly FieldProblem[]; current?: unknown; values?: Values; retryAfterSeconds?: number } = {},
  ) {
    super(code)
    this.fields = more.fields ?? []
    this.current = more.current
    this.values = more.values ?? {}
    this.retryAfterSeconds = more.retryAfterSeconds
  }

  /** The problem document of RFC 9457. */
  toDocument(requestId: string): Problem {
    return {
      type: `/docs/problems#${this.code}`,
      title: titles[this.status] ?? 'Problem',
      status: this.status,
      code: this.code,
      ...told(this.values),
      detail: sentence(this.code, { ...this.values, requestId }),
      requestId,
      ...(this.fields.length === 0 ? {} : { fields: [...this.fields] }),
      ...(this.current === undefined ? {} : { current: this.current }),
    }
  }
}

const titles: Record<number, string> = {
  400: 'Bad request',
  401: 'Not signed in',
  403: 'Not allowed',
  404: 'Not found',
  405: 'Method not allowed',
  409: 'Conflict',
  412: 'Changed meanwhile',
  413: 'Too large',
  415: 'Not readable',
  421: 'Not here',
  422: 'Not valid',
  428: 'Version needed',
  429: 'Too many tries',
  500: 'Fault',
  503: 'Not available',
  507: 'No room',
}

/** Refuses a request for one field. */
export function refuseField(path: string, code: ProblemCode, values: Values = {}): ProblemError {
  return new ProblemError(422, 'request-invalid', { fields: [atField(path, code, values)] })
}
