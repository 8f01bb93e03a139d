import type { BoxEnds } from '../length/cutPlan.ts'

/** A piece of chain that hangs together. */
export interface ChainPiece {
  /** Pitches of chain, each an inner or an outer link. */
  readonly pitches: number
  readonly ends: BoxEnds | 'both-outer'
}

/**
 * What a closed chain falls into when pins are driven out of it. Pin 0 is the joint's; pin 1 is the next one along, and −1 the other pin of
 * the joint's own outer link.
 *
 * @param pitches closed length, even
 * @returns the pieces, longest first
 * @throws RangeError for an odd or too short chain, or none driven
 */
export function piecesAfter(pitches: number, pins: readonly number[]): ChainPiece[] {
  if (!Number.isInteger(pitches) || pitches < 4 || pitches % 2 !== 0)
    throw new RangeError('a closed chain has an even count of pitches')
  const driven = [...new Set(pins.map((pin) => ((pin % pitches) + pitches) % pitches))].sort((a, b) => a - b)
  if (driven.length === 0) throw new RangeError('nothing was driven out')
  // Link i lies between pin i − 1 and pin i; those with an even number are outer.
  const isOuter = (link: number): boolean => link % 2 === 0
  return driven
    .map((pin, i): ChainPiece => {
      const next = driven[i + 1] ?? driven[0]! + pitches
      const outer = Number(isOuter(pin + 1)) + Number(isOuter(next))
      return { pitches: next - pin, ends: outer === 0 ? 'both-inner' : outer === 1 ? 'one-outer' : 'both-outer' }
    })
    .sort((a, b) => b.pitches - a.pitches)
}
