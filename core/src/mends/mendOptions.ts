import type { BoxEnds } from '../length/cutPlan.ts'

/** What closes a mended chain: a connecting link, a joining pin, or an old pin pressed in again. */
export const MEND_JOINTS = ['link', 'pin', 're-press'] as const
export type MendJoint = (typeof MEND_JOINTS)[number]

/** Plates of a pitch: narrow ones around the roller, or the wide ones outside. */
export const PITCH_KINDS = ['inner', 'outer'] as const
export type PitchKind = (typeof PITCH_KINDS)[number]
/** A broken chain as somebody looked it over. Pitches are numbered round the loop from the broken one, which is 0. */
export interface BrokenChain {
  /** Pitches it has now, the broken one among them; even. */
  readonly pitches: number
  readonly broken: PitchKind
  /** Pitches that are damaged, the broken one among them. */
  readonly damaged: readonly number[]
  /** Pitches of the same model at hand, such as the offcut that was kept; 0 with none. */
  readonly spare?: number
}

/** Pitches that come out, one after another round the loop. */
export interface Run {
  readonly from: number
  readonly length: number
}

/** One way of mending a broken chain. */
export interface MendOption {
  readonly joint: MendJoint
  /** Each damaged place by itself, or everything from the first to the last of them. */
  readonly way: 'each' | 'one-run'
  readonly runs: readonly Run[]
  /** What both ends of every gap are, once the runs are out. */
  readonly ends: BoxEnds
  /** How many joints it takes. */
  readonly joints: number
  /** Pitches put in from the spare piece, in each gap; empty without. */
  readonly inserted: readonly number[]
  /** The count when it is closed. */
  readonly left: number
  /** Pitches fewer than before. */
  readonly lost: number
}

/** What a pitch is, by its place: plates alternate round the loop. */
export const kindAt = ({ broken }: Pick<BrokenChain, 'broken'>, pitch: number): PitchKind =>
  pitch % 2 === 0 ? broken : broken === 'inner' ? 'outer' : 'inner'

/**
 * Every way of mending a broken chain, the one that loses fewest pitches first, then the one with fewest joints.
 *
 * A link is an outer link: what comes out begins and ends with outer plates, so that an inner link is left at both ends, and
 * the link takes the place of one pitch. A pin joins an inner and an outer end: an even count comes out, two at least. With a
 * spare piece of the same model the length can be kept: a piece with inner ends between two links.
 *
 * @throws RangeError for an odd count, for a damaged pitch that is not on the chain, or where the broken one is not among them
 */
export function mendOptions(chain: BrokenChain, joints: readonly MendJoint[] = MEND_JOINTS): MendOption[] {
  const { pitches, damaged, spare = 0 } = chain
  if (!Number.isInteger(pitches) || pitches < 4 || pitches % 2 !== 0)
    throw new RangeError(`a chain whose plates alternate has an even count, not ${pitches}`)
  if (damaged.some((pitch) => !Number.isInteger(pitch) || pitch < 0 || pitch >= pitches))
    throw new RangeError('a damaged pitch is not on the chain')
  if (!damaged.includes(0)) throw new RangeError('the broken pitch is damaged')
  const places = [...new Set(damaged)].sort((a, b) => a - b)
  const found: MendOption[] = []
  for (const joint of joints) {
    const each = merged(
      places.map((pitch) => widened(chain, { from: pitch, length: 1 }, joint)),
      chain,
      joint,
    )
    const one = widened(chain, shortestArc(places, pitches), joint)
    const ways: (readonly [MendOption['way'], readonly Run[]])[] = [['each', each]]
    if (each.length > 1 && one.length < pitches) ways.push(['one-run', [one]])
    for (const [way, runs] of ways) {
      const option = asOption(chain, joint, way, runs)
      if (option.left < 2) continue
      found.push(option)
      const restored = joint === 'link' ? withSpare(option, spare) : null
      if (restored) found.push(restored)
    }
  }
  return found.sort(
    (a, b) => a.lost - b.lost || a.joints - b.joints || MEND_JOINTS.indexOf(a.joint) - MEND_JOINTS.indexOf(b.joint),
  )
}

function asOption(
  { pitches }: BrokenChain,
  joint: MendJoint,
  way: MendOption['way'],
  runs: readonly Run[],
): MendOption {
  const out = runs.reduce((sum, { length }) => sum + length, 0)
  const left = pitches - out + (joint === 'link' ? runs.length : 0)
  return {
    joint,
    way,
    runs,
    ends: joint === 'link' ? 'both-inner' : 'one-outer',
    joints: runs.length,
    inserted: [],
    left,
    lost: pitches - left,
  }
}

/** The same with what came out put back from a spare piece, a link at each of its ends; null where it does not reach. */
function withSpare(option: MendOption, spare: number): MendOption | null {
  // A run of one outer pitch is made whole by its link already.
  const inserted = option.runs.map(({ length }) => Math.max(0, length - 2))
  const wanted = inserted.reduce((sum, one) => sum + one, 0)
  if (wanted === 0 || wanted > spare) return null
  const pieces = inserted.filter((one) => one > 0).length
  return {
    ...option,
    inserted,
    joints: option.joints + pieces,
    left: option.left + wanted + pieces,
    lost: option.lost - wanted - pieces,
  }
}

/** A run grown until its joint can close what it leaves. */
function widened(chain: BrokenChain, { from, length }: Run, joint: MendJoint): Run {
  const { pitches } = chain
  if (joint !== 'link') return { from, length: length % 2 === 0 ? length : length + 1 }
  let [first, last] = [from, from + length - 1]
  if (kindAt(chain, first % pitches) === 'inner') first -= 1
  if (kindAt(chain, last % pitches) === 'inner') last += 1
  return { from: (first + pitches) % pitches, length: last - first + 1 }
}

/** Runs that touch or overlap become one: nothing is left between them to join. */
function merged(runs: readonly Run[], chain: BrokenChain, joint: MendJoint): Run[] {
  const { pitches } = chain
  const out = new Set(runs.flatMap(({ from, length }) => Array.from({ length }, (_, i) => (from + i) % pitches)))
  // Ends of two gaps that lie on one pitch, or on none, cannot both be joined.
  const least = 2
  const found: Run[] = []
  const start = [...out].find((pitch) => !out.has((pitch - 1 + pitches) % pitches))
  if (start === undefined) return [{ from: 0, length: pitches }]
  for (let i = 0; i < pitches; i++) {
    const pitch = (start + i) % pitches
    if (!out.has(pitch)) continue
    const last = found.at(-1)
    const gap = last === undefined ? Infinity : (pitch - ((last.from + last.length) % pitches) + pitches) % pitches
    if (last && gap < least) found[found.length - 1] = { from: last.from, length: last.length + gap + 1 }
    else found.push({ from: pitch, length: 1 })
  }
  const first = found[0]
  const last = found.at(-1)
  if (found.length > 1 && first && last) {
    const gap = (first.from - ((last.from + last.length) % pitches) + pitches) % pitches
    if (gap < least)
      found.splice(0, found.length, ...found.slice(1, -1), {
        from: last.from,
        length: last.length + gap + first.length,
      })
  }
  const grown = found.map((run) => widened(chain, run, joint))
  // Growing may close another gap.
  return grown.some((run, i) => run.length !== found[i]?.length) ? merged(grown, chain, joint) : grown
}

/** The shortest stretch round the loop that holds every damaged place. */
function shortestArc(places: readonly number[], pitches: number): Run {
  let widest = { gap: -1, after: 0 }
  for (const [i, place] of places.entries()) {
    const next = places[(i + 1) % places.length]!
    const gap = (next - place + pitches) % pitches || pitches
    if (gap > widest.gap) widest = { gap, after: i }
  }
  const from = places[(widest.after + 1) % places.length]!
  const to = places[widest.after]!
  return { from, length: ((to - from + pitches) % pitches) + 1 }
}

/** The last pitch of a chain: they are counted from 0, where it broke. */
export const lastPitch = (pitches: number): number => pitches - 1
