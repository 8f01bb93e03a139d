/** Yes, no, or not known, while it is typed. */
export type MaybeTyped = '' | 'yes' | 'no'

export const maybeTyped = (known: boolean | null): MaybeTyped => (known === null ? '' : known ? 'yes' : 'no')
export const maybeIn = (typed: MaybeTyped): boolean | null => (typed === '' ? null : typed === 'yes')
