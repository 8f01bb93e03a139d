import { typedNumber } from '../messages/typedNumber.ts'

/** A number as typed, for a field that may be left empty: null when nothing is typed, NaN when it is none, which a schema refuses. */
export const numberIn = (typed: string): number | null => (typed.trim() === '' ? null : (typedNumber(typed) ?? NaN))

/** A number as typed, for a field that wants one. */
export const numberWanted = (typed: string): number => typedNumber(typed) ?? NaN

/** Text as typed, for a field that may be left empty. */
export const textIn = (typed: string): string | null => (typed.trim() === '' ? null : typed.trim())

/** A choice of a list that may be left open: its first line is ''. */
export const choiceIn = <T extends string>(chosen: T | ''): T | null => (chosen === '' ? null : chosen)

/** A value as a field begins with it. */
export const asTyped = (value: number | string | null | undefined): string => (value == null ? '' : String(value))
