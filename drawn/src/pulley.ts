import type { PulleyGrade } from '@pelrin/core'
import type { Drawing } from './shapes.ts'

const TEETH = 11
const [WIDE, HIGH] = [96, 96]
const CENTRE = 48
/** Of each shape: how far out a tooth reaches, how wide it is at its tip and at its root, as shares of its pitch, and how deep the root lies. */
const SHAPES: Readonly<Record<PulleyGrade, { out: number; tip: number; foot: number; root: number }>> = {
  // Crisp: short flat-topped teeth, a round seat for each roller.
  'as-new': { out: 42, tip: 0.34, foot: 0.56, root: 32 },
  // Rounded: lower, the corners gone.
  worn: { out: 39.5, tip: 0.16, foot: 0.46, root: 31 },
  // Pointed: nothing but points stand between the seats.
  done: { out: 43, tip: 0.01, foot: 0.3, root: 29.5 },
}

const at = (radius: number, turn: number): string => {
  const angle = turn * 2 * Math.PI - Math.PI / 2
  return `${Math.round(10 * (CENTRE + radius * Math.cos(angle))) / 10} ${Math.round(10 * (CENTRE + radius * Math.sin(angle))) / 10}`
}

/** A pulley of a derailleur from the drive side, its teeth crisp, rounded or pointed. */
export function pulleyDrawing(grade: PulleyGrade): Drawing {
  const { out, tip, foot, root } = SHAPES[grade]
  const outline = Array.from({ length: TEETH }, (_, i) => {
    const turn = (share: number): number => (i + share) / TEETH
    const flank = out - (out - root) * 0.25
    return [
      `${i === 0 ? 'M' : 'L'}${at(root, turn(-foot / 2))}`,
      // A worn tooth has lost its corners: its top is one curve.
      grade === 'worn'
        ? `Q${at(out, turn(-tip))} ${at(out, turn(0))}Q${at(out, turn(tip))} ${at(root, turn(foot / 2))}`
        : `L${at(flank, turn(-tip / 2 - 0.04))}L${at(out, turn(-tip / 2))}L${at(out, turn(tip / 2))}L${at(flank, turn(tip / 2 + 0.04))}L${at(root, turn(foot / 2))}`,
      `Q${at(root - 3.5, turn(0.5))} ${at(root, turn(1 - foot / 2))}`,
    ].join('')
  }).join('')
  return {
    width: WIDE,
    height: HIGH,
    shapes: [
      { kind: 'path', d: `${outline}Z`, fill: 'blade', stroke: 'edge', width: 2.2, round: true },
      { kind: 'circle', cx: CENTRE, cy: CENTRE, r: 15, fill: 'sheet', stroke: 'edge', width: 1.6 },
      { kind: 'circle', cx: CENTRE, cy: CENTRE, r: 6, fill: 'paper', stroke: 'edge', width: 1.6 },
    ],
  }
}
