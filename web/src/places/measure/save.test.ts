import { afterEach, beforeAll, beforeEach, describe, expect, it, vi } from 'vitest'
import * as v from 'valibot'
import type { BikeRecord, CorrectReading, Instrument, Problem, TakeReading } from '@pelrin/contract'
import { drafts } from '../../drafts/drafts.ts'
import { outbox, type Waiting } from '../../outbox/outbox.ts'
import { conditionsOf, isTyped, PLACES_ROUND, restoreDraft, type Draft } from './draft.ts'
import { assumedFor, readRound } from './evaluate.ts'
import { saveDraft, sentPlaces } from './save.ts'

const INSTRUMENT = {
  id: 'i1',
  kind: 'steel-rule',
  uMm: 0.1,
  u: null,
  bias: 0,
  biasU: 0,
  marks: null,
  material: 'steel',
  rollerMm: null,
  standing: 'in-use',
  reads: null,
  checkedOn: '2026-01-01',
  checkLapsed: false,
} as unknown as Instrument
const assumed = assumedFor({ assumptions: {} } as unknown as BikeRecord)

/** A draft with something typed at places, counted from 0. */
function draftOf(typed: Readonly<Record<number, string>>, change: Partial<Draft> = {}): Draft {
  return {
    readingId: 'r1',
    fittingId: 'f1',
    takenAt: null,
    keepsTime: false,
    instrumentId: 'i1',
    spots: Array.from({ length: PLACES_ROUND }, (_, i) => ({
      id: `s${i}`,
      typed: typed[i] ?? '',
      pitches: typed[i] === undefined ? null : 24,
      picture: null,
    })),
    named: false,
    mode: 'pin-to-pin',
    linkIncluded: true,
    signs: null,
    run: 'lower',
    load: 'tensioned',
    ruleCelsius: '',
    chainCelsius: '',
    preloadKg: '',
    source: 'shop',
    note: '',
    readerId: null,
    baseline: false,
    odometer: { id: 'o1', typed: '', lower: null },
    reason: '',
    ...change,
  }
}

let sent: Waiting[] = []
let dropped: string[] = []
let end: { ok: true; result: unknown } | { ok: false; problem: Problem } | 'never'

beforeAll(async () => {
  await import('../../messages/index.ts')
})
beforeEach(() => {
  sent = []
  end = { ok: true, result: { saved: true } }
  vi.spyOn(outbox, 'put').mockImplementation((write) => {
    sent.push(write)
    return Promise.resolve({ settled: end === 'never' ? new Promise(() => undefined) : Promise.resolve(end) })
  })
  dropped = []
  vi.spyOn(outbox, 'drop').mockImplementation((key) => {
    dropped.push(key)
    return Promise.resolve()
  })
})
afterEach(() => {
  vi.useRealTimers()
  vi.restoreAllMocks()
  vi.unstubAllGlobals()
})

const save = (draft: Draft, more: { corrects?: string; instrument?: Instrument } = {}) => {
  const { corrects = null, instrument = INSTRUMENT } = more
  return saveDraft({
    draft,
    spots: readRound(draft, instrument, assumed, 0.5),
    instrument,
    unit: 'km',
    bikeId: 'b1',
    corrects,
    personId: 'p1',
    title: 'Island Mail',
  })
}
const bodySent = (): TakeReading => sent[0]?.body as TakeReading

describe('a reading that is saved', () => {
  it('is sent with what was typed and nothing that was not', async () => {
    expect(await save(draftOf({ 0: ' 305.6 ', 2: '305.2' }))).toEqual({ end: 'saved', record: { saved: true } })
    expect(sent[0]).toMatchObject({ method: 'POST', path: '/readings', params: {}, bikeId: 'b1', personId: 'p1' })
    expect(bodySent()).toMatchObject({
      id: 'r1',
      bikeId: 'b1',
      instrumentId: 'i1',
      spots: [
        { id: 's0', typed: '305.6', pitches: 24 },
        { id: 's2', typed: '305.2', pitches: 24 },
      ],
      conditions: { run: 'lower', load: 'tensioned' },
      source: 'shop',
      baseline: false,
    })
    for (const absent of ['odometer', 'signs', 'readerId', 'reason']) expect(bodySent()).not.toHaveProperty(absent)
    for (const spot of bodySent().spots) expect(Object.keys(spot)).toEqual(['id', 'typed', 'pitches'])
  })

  it('names the places of its spots where they were counted from the link', async () => {
    await save(draftOf({ 1: '305.6', 4: '305.2' }, { named: true }))
    expect(bodySent().spots.map(({ place }) => place)).toEqual([2, 5])
  })

  it('leaves out what cannot be read, and still knows whose field each spot was', () => {
    const draft = draftOf({ 0: '305.6', 1: 'abc', 3: '305.2' })
    expect(sentPlaces(readRound(draft, INSTRUMENT, assumed, 0.5))).toEqual([0, 3])
  })

  it('says how it was taken, the odometer, and who held the rule', async () => {
    await save(
      draftOf(
        { 0: '305.6' },
        {
          ruleCelsius: '21,5',
          chainCelsius: 'warm',
          preloadKg: '4',
          readerId: 'p2',
          odometer: { id: 'o1', typed: ' 9000 ', lower: 'restarted' },
        },
      ),
    )
    expect(bodySent()).toMatchObject({
      conditions: { ruleCelsius: 21.5, preloadKg: 4 },
      readerId: 'p2',
      odometer: { id: 'o1', typed: '9000', unit: 'km', lower: 'restarted' },
    })
    expect(bodySent().conditions).not.toHaveProperty('chainCelsius')
  })

  it('of a check by hand is its signs, and of a caliper how its jaws touched', async () => {
    const byHand = { ...INSTRUMENT, kind: 'by-hand' } as Instrument
    await save(draftOf({}, { signs: ['lifts-off'] as never }), { instrument: byHand })
    expect(bodySent()).toMatchObject({ spots: [], signs: ['lifts-off'] })
    sent = []
    const caliper = { ...INSTRUMENT, kind: 'caliper' } as Instrument
    await save(draftOf({ 0: '132.6' }, { mode: 'inside-rollers' }), { instrument: caliper })
    for (const spot of bodySent().spots) expect(spot.mode).toBe('inside-rollers')
  })

  it('that corrects another one says which and why, and leaves the bike to it', async () => {
    await save(draftOf({ 0: '305.6' }, { reason: ' misread ' }), { corrects: 'r0' })
    expect(sent[0]).toMatchObject({ path: '/readings/:id/corrections', params: { id: 'r0' } })
    const body = bodySent() as unknown as CorrectReading
    expect(body.reason).toBe('misread')
    expect(body).not.toHaveProperty('bikeId')
  })

  it('goes on by itself where the server takes its time', async () => {
    vi.useFakeTimers()
    end = 'never'
    const saving = save(draftOf({ 0: '305.6' }))
    await vi.advanceTimersByTimeAsync(4_000)
    expect(await saving).toEqual({ end: 'kept' })
    expect(dropped).toEqual([])
  })

  it('and is refused goes back into its fields, not among what waits', async () => {
    const problem = { status: 422, code: 'request-invalid', detail: 'No.', requestId: 'r' } as unknown as Problem
    end = { ok: false, problem }
    expect(await save(draftOf({ 0: '305.6' }))).toEqual({ end: 'refused', problem })
    expect(dropped).toEqual([sent[0]?.key])
  })
})

describe('a reading that had arrived, and nobody heard so', () => {
  it('is no problem of anybody’s', async () => {
    const problem = { status: 409, code: 'id-taken', detail: 'x' } as Problem
    end = { ok: false, problem }
    expect(await save(draftOf({ 0: '305.6' }))).toEqual({ end: 'arrived' })
    expect(dropped).toEqual([sent[0]?.key])
  })
  it('was taken when its last spot was read, not when it was sent', async () => {
    await save(draftOf({ 0: '305.6' }, { takenAt: '2026-05-04T09:30:00.000Z' }))
    expect(bodySent()).toMatchObject({ occurredAt: '2026-05-04T09:30:00.000Z', fittingId: 'f1' })
  })
})

describe('a write that was refused later', () => {
  it('is a draft again with everything in its place', async () => {
    const draft = draftOf(
      { 1: '305.6', 4: '305.2' },
      {
        named: true,
        ruleCelsius: '21.5',
        source: 'customer',
        note: ' from his saddlebag ',
        odometer: { id: 'o1', typed: '9000', lower: null },
      },
    )
    await save(draft)
    restoreDraft(sent[0]!)
    const again = drafts.read('reading b1 ', v.unknown()) as Draft
    expect(again.spots.map(({ typed }) => typed)).toEqual(draft.spots.map(({ typed }) => typed))
    expect(again).toMatchObject({ named: true, ruleCelsius: '21.5', source: 'customer', instrumentId: 'i1' })
    expect(again.note).toBe('from his saddlebag')
    expect(again.odometer.typed).toBe('9000')
    expect(conditionsOf(again)).toEqual(conditionsOf(draft))
    // It is of the chain and the moment it was taken, whatever is on the bike by then.
    expect(again).toMatchObject({ fittingId: 'f1', takenAt: bodySent().occurredAt, keepsTime: true })
    // Sent once more it is another reading: the one refused was never taken.
    expect(again.readingId).not.toBe(draft.readingId)
  })

  it('of a correction is kept beside the bike’s own draft', async () => {
    await save(draftOf({ 0: '305.6' }, { reason: 'misread' }), { corrects: 'r0' })
    restoreDraft(sent[0]!)
    expect((drafts.read('reading b1 r0', v.unknown()) as Draft).reason).toBe('misread')
  })
})

describe('a draft', () => {
  it('is worth keeping once anything was typed that would be missed', () => {
    expect(isTyped(draftOf({}))).toBe(false)
    expect(isTyped(draftOf({ 3: ' ' }))).toBe(false)
    expect(isTyped(draftOf({ 3: '3' }))).toBe(true)
    expect(isTyped(draftOf({}, { odometer: { id: 'o', typed: '9', lower: null } }))).toBe(true)
    expect(isTyped(draftOf({}, { signs: [] }))).toBe(true)
  })
})
