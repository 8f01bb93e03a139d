import { PITCH_MM } from '../defaults.ts'

/** Teeth of the two sprockets a loop runs over, and how far apart their axles are. */
export interface Loop {
  /** Between the axles, mm; of a suspended frame at its longest. */
  readonly chainstayMm: number
  readonly frontTeeth: number
  readonly rearTeeth: number
}

/** Fewest teeth a chain can run over. */
export const FEWEST_TEETH = 8

/**
 * The exact length of a loop over two sprockets, in pitches:
 * L = 2C·cos α/p + N₁(π+2α)/2π + N₂(π−2α)/2π, N₁ the larger, pitch radii R = p/(2 sin(π/N)), α = asin((R₁−R₂)/C).
 *
 * Along the tooth's pitch circle a chain lies in chords, a pitch each, so that every tooth engaged takes one pitch.
 *
 * @returns pitches, not a whole number
 * @throws RangeError for fewer than 8 teeth, parts of teeth, or axles so near that the sprockets touch
 */
export function loopPitches({ chainstayMm, frontTeeth, rearTeeth }: Loop): number {
  const larger = Math.max(frontTeeth, rearTeeth)
  const smaller = Math.min(frontTeeth, rearTeeth)
  checkTeeth(smaller)
  checkTeeth(larger)
  if (!(chainstayMm > pitchRadiusMm(larger) + pitchRadiusMm(smaller)) || !Number.isFinite(chainstayMm))
    throw new RangeError('the axles must be further apart than the sprockets reach')
  const alpha = Math.asin((pitchRadiusMm(larger) - pitchRadiusMm(smaller)) / chainstayMm)
  return (
    (2 * chainstayMm * Math.cos(alpha)) / PITCH_MM +
    (larger * (Math.PI + 2 * alpha) + smaller * (Math.PI - 2 * alpha)) / (2 * Math.PI)
  )
}

/** Radius of the circle the pins run on, mm. */
export const pitchRadiusMm = (teeth: number): number => PITCH_MM / (2 * Math.sin(Math.PI / teeth))

function checkTeeth(teeth: number): void {
  if (!Number.isInteger(teeth) || teeth < FEWEST_TEETH)
    throw new RangeError(`a sprocket has ${FEWEST_TEETH} teeth or more, and whole ones`)
}

/**
 * How far apart the axles must be for a loop of so many pitches: the inverse of {@link loopPitches}.
 *
 * @returns mm
 * @throws RangeError as {@link loopPitches}, and for fewer pitches than go round the two sprockets
 */
export function chainstayFor({
  pitches,
  frontTeeth,
  rearTeeth,
}: {
  readonly pitches: number
  readonly frontTeeth: number
  readonly rearTeeth: number
}): number {
  checkTeeth(frontTeeth)
  checkTeeth(rearTeeth)
  const at = (chainstayMm: number): number => loopPitches({ chainstayMm, frontTeeth, rearTeeth })
  // Just beyond where they touch, to where the straight runs alone are as long as the chain.
  let near = (pitchRadiusMm(frontTeeth) + pitchRadiusMm(rearTeeth)) * (1 + 1e-9)
  let far = near + (pitches * PITCH_MM) / 2
  if (!(pitches > at(near)) || !Number.isFinite(pitches))
    throw new RangeError('so few pitches do not go round these sprockets')
  while (far - near > 1e-7) {
    const middle = (near + far) / 2
    if (at(middle) < pitches) near = middle
    else far = middle
  }
  return (near + far) / 2
}
