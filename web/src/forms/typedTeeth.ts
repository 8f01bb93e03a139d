/** Numbers of teeth as typed, apart by blanks, commas, strokes or hyphens; what is no number is NaN. */
export const typedTeeth = (typed: string): number[] =>
  typed
    .split(/[\s,;/-]+/)
    .filter((part) => part !== '')
    .map(Number)
