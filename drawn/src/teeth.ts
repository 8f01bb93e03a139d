import type { ToothGrade } from '@pelrin/core'
import type { Drawing } from './shapes.ts'

/** How far each shape has come: height of the tip, its width, how far the loaded flank is hollowed out, how far it leans. */
const SHAPES: Readonly<Record<ToothGrade, { tip: number; width: number; hollow: number; lean: number }>> = {
  'as-new': { tip: 30, width: 13, hollow: 0, lean: 0 },
  used: { tip: 30, width: 9, hollow: 4, lean: 1 },
  worn: { tip: 32, width: 5, hollow: 9, lean: 5 },
  done: { tip: 25, width: 1, hollow: 13, lean: 9 },
}
const PITCH = 40
const ROOT = 38
const TEETH = 3

/** One tooth beside the next: the chain pulls to the right, so that the right flank wears. */
function outline(grade: ToothGrade): string {
  const { tip, width, hollow, lean } = SHAPES[grade]
  const top = ROOT - tip
  const tooth = (x: number, last: boolean): string => {
    const left = x + 8
    const right = x + PITCH - 8
    const middle = x + PITCH / 2 + lean
    return [
      `L${left} ${ROOT}`,
      `Q${left + 5} ${ROOT - tip * 0.5} ${middle - width / 2} ${top}`,
      `Q${middle} ${top - 2} ${middle + width / 2} ${top}`,
      // Hollowed: the flank goes in below the tip, which then hangs over it.
      `Q${right - 5 - hollow} ${ROOT - tip * 0.42} ${right - hollow * 0.35} ${ROOT}`,
      last
        ? `Q${x + PITCH - 2} ${ROOT + 3} ${x + PITCH} ${ROOT + 3}`
        : `Q${x + PITCH} ${ROOT + 7} ${x + PITCH + 8} ${ROOT}`,
    ].join('')
  }
  const teeth = Array.from({ length: TEETH }, (_, i) => tooth(i * PITCH, i === TEETH - 1)).join('')
  return `M0 56V${ROOT + 3}${teeth}V56Z`
}

/** Three teeth as they look from the drive side, and the way the chain pulls. */
export function teethDrawing(grade: ToothGrade): Drawing {
  const end = TEETH * PITCH
  return {
    width: end,
    height: 58,
    shapes: [
      { kind: 'path', d: outline(grade), fill: 'blade', stroke: 'edge', width: 2.4, round: true },
      { kind: 'path', d: `M6 51H${end - 6}m-7 -4l7 4-7 4`, stroke: 'edge', width: 1.1 },
    ],
  }
}
