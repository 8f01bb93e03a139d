/**
 * What comes before what, whatever the work: of two steps that are both there, the first is done before the second. The order of a table
 * of steps says how they are usually done; this says what must be so.
 */
export const COMES_BEFORE: readonly (readonly [first: string, then: string])[] = [
  // A motor turns nothing on while hands are in the drive; what is worn is found before it is treated or opened.
  ['motor-off', 'measure-first'],
  ['measure-first', 'identify-joint'],
  ['measure-broken', 'look-broken'],
  ['lay-bike', 'motor-off'],
  ['motor-off', 'slack'],
  ['motor-off', 'turn-cranks'],
  // The way of opening follows from the joint, and what is worn loose is not opened under a spring.
  ['identify-joint', 'open-link'],
  ['identify-joint', 'open-anywhere'],
  ['identify-joint', 'open-pin'],
  ['identify-joint', 'open-riveted'],
  ['identify-joint', 'open-clip'],
  ['note-way', 'draw-out'],
  ['slack', 'lock-cage'],
  ['lock-cage', 'hold-ends'],
  ['clutch-off', 'hold-ends'],
  ['slacken-axle', 'hold-ends'],
  ['turn-eccentric', 'hold-ends'],
  ['hold-ends', 'open-link'],
  ['hold-ends', 'open-anywhere'],
  ['hold-ends', 'open-pin'],
  ['hold-ends', 'open-riveted'],
  ['hold-ends', 'open-clip'],
  ['set-tool', 'open-pin'],
  ['set-tool', 'open-riveted'],
  ['set-tool', 'open-anywhere'],
  ['set-tool', 'cut'],
  ['set-tool', 'join-pin'],
  ['set-tool', 'join-re-press'],
  // Both pins of one outer link, the joint's own first.
  ['open-pin', 'outer-out'],
  ['open-riveted', 'outer-out'],
  ['let-go', 'draw-out'],
  // A chain is clean before it is dry, dry before anything goes on it, and off before it is bathed.
  ['draw-out', 'soak'],
  ['draw-out', 'ultrasonic'],
  ['draw-out', 'boil'],
  ['draw-out', 'strip-chain'],
  ['draw-out', 'clean-around'],
  ['wipe-dry', 'dry'],
  ['dry', 'look-teeth'],
  ['dry', 'lower-in'],
  ['dry', 'drop-each-roller'],
  ['dry', 'drip-each-roller'],
  ['strip', 'wax-first'],
  // A broken chain is looked over whole before anything comes out of it, and counted before it is threaded.
  ['look-broken', 'take-out'],
  ['set-tool', 'take-out'],
  ['take-out', 'put-in'],
  ['put-in', 'count-mended'],
  ['take-out', 'count-mended'],
  ['count-mended', 'route-front'],
  ['count-mended', 'route-rear'],
  ['count-mended', 'route-pulleys'],
  ['size-on-bike', 'length-new'],
  ['size-on-bike', 'cut'],
  // Ends are right, and the side and the way are known, before anything is threaded.
  ['check-ends', 'route-front'],
  ['direction', 'route-front'],
  ['direction', 'route-rear'],
  ['direction', 'route-pulleys'],
  ['route-front', 'route-pulleys'],
  ['route-pulleys', 'ends-together'],
  ['route-rear', 'ends-together'],
  ['ends-together', 'length-before'],
  ['length-before', 'join-link'],
  ['clear-wax', 'join-link'],
  ['degrease-link', 'join-link'],
  ['oil-link', 'join-link'],
  ['join-link', 'first-catch'],
  ['first-catch', 'snap-pliers'],
  ['first-catch', 'snap-pedal'],
  // The pedal pulls nothing while the chain lies off its ring; pliers close it while it lies slack.
  ['first-catch', 'back-on-ring'],
  ['back-on-ring', 'snap-pedal'],
  ['snap-pliers', 'back-on-ring'],
  ['snap-pliers', 'look-click'],
  ['snap-pedal', 'look-click'],
  ['new-link', 'look-click'],
  ['join-pin', 'guide-off'],
  ['join-pin', 'back-on-ring'],
  ['join-re-press', 'back-on-ring'],
  ['guide-off', 'back-on-ring'],
  // A spring pulls again only on a joint that was looked at.
  ['look-click', 'unlock-cage'],
  ['look-click', 'clutch-on'],
  ['guide-off', 'unlock-cage'],
  ['join-re-press', 'unlock-cage'],
  ['unlock-cage', 'length-after'],
  ['set-tension', 'tighten-axle'],
  // What closed is looked at, and a stiff link freed, before gears are judged; hands are out of the drive before it is powered and ridden.
  ['length-after', 'stiff-link'],
  ['mend-count', 'stiff-link'],
  ['stiff-link', 'free-stiff'],
  ['free-stiff', 'back-pedal'],
  ['free-stiff', 'every-gear'],
  ['free-stiff', 'hub-gears'],
  ['every-gear', 'first-oil'],
  ['hub-gears', 'first-oil'],
  ['first-oil', 'rotor-clean'],
  ['rotor-clean', 'motor-on'],
  ['motor-on', 'test-ride'],
  ['rotor-clean', 'test-ride'],
  // The old chain goes when the new one is proved.
  ['test-ride', 'fit-cassette'],
  ['test-ride', 'old-back'],
  ['fit-cassette', 'ride-again'],
  ['old-back', 'ride-again'],
  ['ride-again', 'old-goes'],
  ['test-ride', 'old-goes'],
  ['old-goes', 'baseline'],
]

const BEFORE = new Map<string, string[]>()
for (const [first, then] of COMES_BEFORE) BEFORE.set(then, [...(BEFORE.get(then) ?? []), first])

/**
 * Steps as they are usually done, but that what must come before another does: the earliest that waits for nothing is next.
 *
 * @throws RangeError where each of some steps waits for another of them
 */
export function inOrder<S extends { readonly id: string }>(usual: readonly S[]): S[] {
  const left = [...usual]
  const waiting = new Set(left.map(({ id }) => id))
  const ordered: S[] = []
  while (left.length > 0) {
    const at = left.findIndex(({ id }) => !(BEFORE.get(id) ?? []).some((first) => waiting.has(first)))
    if (at < 0) throw new RangeError(`each of these waits for another: ${[...waiting].join(', ')}`)
    const [step] = left.splice(at, 1)
    waiting.delete(step!.id)
    ordered.push(step!)
  }
  return ordered
}
