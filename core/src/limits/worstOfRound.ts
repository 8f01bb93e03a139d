import { hangsWholeChain } from '../readings/instrumentKinds.ts'
import { LRUCache } from 'lru-cache'
import type { Assumptions } from '../assumptions.ts'
import { probabilityOver } from '../readings/probabilityOver.ts'
import { worstSpotPosterior, type SpotObservation, type WorstSpotPosterior } from '../readings/worstSpot.ts'
import { spotU, type CountedSpot } from './round.ts'
import type { RawWorst } from './verdictTypes.ts'

/** D1: the worst of all places round the chain, to be held against any limit. One point spot of one place is judged by itself. */
export function worstOf(spots: readonly CountedSpot[], { measuring }: Assumptions): WorstSpotPosterior {
  const only = spots.length === 1 && measuring.places === 1 ? spots[0] : undefined
  if (only?.spot.value !== undefined && !hangsWholeChain(only.reading.instrument.kind)) {
    const u = Math.hypot(only.spot.u, only.reading.instrument.biasU)
    const { value } = only.spot
    return {
      probabilityOver: (limit) => probabilityOver({ elongation: value, u, limit }),
      median: value,
      halfWidth: u,
    }
  }
  const observations = spots.map(observation)
  const key = JSON.stringify([measuring.places, observations])
  const known = KNOWN.get(key) ?? worstSpotPosterior(observations, measuring.places)
  KNOWN.set(key, known)
  return known
}

/**
 * Rounds worked out before: what a bike's earlier readings say is asked again with every verdict, every forecast and
 * every key typed, and never changes.
 */
const KNOWN = new LRUCache<string, WorstSpotPosterior>({ max: 300 })

function observation({ reading, spot }: CountedSpot): SpotObservation {
  const shared = {
    instrument: reading.instrument.id,
    biasU: reading.instrument.biasU,
    ...(spot.place === undefined ? {} : { place: spot.place }),
    u: spot.u,
  }
  if (spot.value !== undefined)
    return { ...shared, value: spot.value, wholeChain: hangsWholeChain(reading.instrument.kind) }
  return {
    ...shared,
    ...(spot.over === undefined ? {} : { over: spot.over }),
    ...(spot.under === undefined ? {} : { under: spot.under }),
  }
}

/** A place to order spots by when only marks are known: the least the spot can be. */
const atLeast = ({ spot }: CountedSpot): number => spot.value ?? spot.over ?? -Infinity

/** Of several looks at one named place the one that is known best speaks for it, the later of two as good. */
const governs = (spots: readonly CountedSpot[]): CountedSpot[] =>
  spots.filter(
    (mine) =>
      mine.spot.place === undefined ||
      !spots.some(
        (other) =>
          other.spot.place === mine.spot.place &&
          (spotU(other) < spotU(mine) ||
            (spotU(other) === spotU(mine) && other.reading.occurredAt > mine.reading.occurredAt)),
      ),
  )

/** The spot that governs: of those that speak for their place the one whose plain value is largest, named beside the verdict's own number. */
export function rawWorst(spots: readonly CountedSpot[]): RawWorst | null {
  let worst: CountedSpot | undefined
  for (const spot of governs(spots)) if (!worst || atLeast(spot) > atLeast(worst)) worst = spot
  if (!worst) return null
  const { value, over, under, u } = worst.spot
  return {
    readingId: worst.reading.id,
    spot: worst.index,
    ...(value === undefined ? {} : { value }),
    ...(over === undefined ? {} : { over }),
    ...(under === undefined ? {} : { under }),
    u,
  }
}

/** Whether a spot looked at a short piece of the chain only, so that others are wanted. */
export function isShortSpan({ reading, spot }: CountedSpot, assumed: Assumptions): boolean {
  if (hangsWholeChain(reading.instrument.kind)) return false
  return spot.pitches === undefined || spot.pitches < assumed.measuring.longRunPitches
}

/** Spots still wanted: none when a long run or a whole chain is among what counts. */
export function spotsStillWanted(spots: readonly CountedSpot[], assumed: Assumptions): number {
  const { spotsWanted } = assumed.measuring
  if (!spots.every((spot) => isShortSpan(spot, assumed))) return 0
  return Math.max(0, spotsWanted - spots.length)
}

/** Largest less smallest point spot, %. Whole-chain readings are no spots. */
export function spreadOf(spots: readonly CountedSpot[]): number | null {
  const values = spots
    .filter(({ reading }) => !hangsWholeChain(reading.instrument.kind))
    .flatMap(({ spot }) => (spot.value === undefined ? [] : [spot.value]))
  return values.length < 2 ? null : Math.max(...values) - Math.min(...values)
}
