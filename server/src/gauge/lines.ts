/** One line of a gauge, understood. See standins/gauge/PROTOCOL.md. */
export type GaugeLine =
  | { readonly word: 'hello'; readonly serial: string; readonly boot: string }
  | { readonly word: 'read'; readonly number: number; readonly percent: number }
  | { readonly word: 'zero'; readonly number: number }
  | { readonly word: 'battery'; readonly percent: number }
  | { readonly word: 'pong' }

/** The longest line there is; anything longer is rubbish. */
export const LONGEST_LINE = 80

/** What a display of a gauge can show, %. */
const SHOWN = { lowest: -0.5, highest: 3 }

/** Understands a line. @returns null for one that makes no sense */
export function understand(line: string): GaugeLine | null {
  const hello = /^HELLO gauge 1 (\S{1,40}) (\S{1,20})$/.exec(line)
  if (hello) return { word: 'hello', serial: hello[1]!, boot: hello[2]! }
  const read = /^READ (\d{1,9}) (-?\d{1,3}(?:\.\d{1,3})?)$/.exec(line)
  if (read) {
    const percent = Number(read[2])
    return percent >= SHOWN.lowest && percent <= SHOWN.highest
      ? { word: 'read', number: Number(read[1]), percent }
      : null
  }
  const zero = /^ZERO (\d{1,9})$/.exec(line)
  if (zero) return { word: 'zero', number: Number(zero[1]) }
  const battery = /^BATT (\d{1,3})$/.exec(line)
  if (battery && Number(battery[1]) <= 100) return { word: 'battery', percent: Number(battery[1]) }
  return line === 'PONG' ? { word: 'pong' } : null
}
