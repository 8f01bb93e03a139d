/** A number as typed, with a point or a comma; undefined when it is none. */
export function typedNumber(typed: string): number | undefined {
  const clean = typed.trim().replace(',', '.').replace('−', '-')
  return clean === '' || Number.isNaN(Number(clean)) ? undefined : Number(clean)
}
