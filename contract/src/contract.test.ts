import { safeParse } from 'valibot'
import { describe, expect, it } from 'vitest'
import { capabilities, ChangeBike, endpoints, SignIn, SwitchPerson, TakeReading, type Endpoint } from './index.ts'
import { problems } from './messages/index.ts'

const all = Object.entries(endpoints) as [string, Endpoint][]
const ID = '0192c7f2-5340-7b38-85ad-942ae19fa762'

/** Paths and codes of what is wrong. */
const wrong = (schema: Parameters<typeof safeParse>[0], value: unknown): Record<string, string> => {
  const parsed = safeParse(schema, value)
  return Object.fromEntries(
    (parsed.issues ?? []).map((issue) => [issue.path?.map((part) => String(part.key)).join('.') ?? '', issue.message]),
  )
}

/** What waits for others goes on from its own cursor, or goes under its own reference: it holds no answer open meanwhile. */
const SAFE_BY_THEMSELVES: readonly string[] = [
  'changeOwnPassword',
  'changeOwnPin',
  'pullRides',
  'placeOrder',
  'settleOrder',
  'acceptOrder',
  'makeFeed',
  'offers',
  'switchPerson',
  'proveAgain',
  'previewReminders',
]

describe('the endpoints', () => {
  it('are those of the capabilities, none left out of either list', () => {
    expect(Object.assign({}, ...Object.values(capabilities))).toEqual(endpoints)
  })
  it('are named as they are called, each at an address of its own', () => {
    for (const [name, endpoint] of all) expect(endpoint.name).toBe(name)
    const addresses = all.map(([, { method, path }]) => `${method} ${path}`)
    expect(new Set(addresses).size).toBe(addresses.length)
  })
  it('name in their path exactly the parameters they take', () => {
    for (const [name, { path, params }] of all) {
      const named = [...path.matchAll(/:(\w+)/g)].map((match) => match[1])
      const taken = params ? Object.keys((params as unknown as { entries: object }).entries) : []
      expect(taken, name).toEqual(named)
    }
  })
  it('that anyone may call write nothing but a session, or what a one-time link is for', () => {
    const open = all.filter(([, { access }]) => access === 'anyone').map(([name]) => name)
    expect(open).toEqual(['door', 'signIn', 'welcome', 'enter'])
  })
  it('that create something can be repeated, and those that change something are versioned', () => {
    for (const [name, { method, access, creates, versioned }] of all) {
      if (method === 'POST' && access !== 'anyone' && access !== 'owner' && !SAFE_BY_THEMSELVES.includes(name))
        expect(creates, name).toBe(true)
      if (method === 'PATCH') expect(versioned, name).toBe(true)
    }
  })
})

describe('a reading as it is sent', () => {
  const reading = {
    id: ID,
    bikeId: ID,
    fittingId: ID,
    occurredAt: '2026-03-01T09:30:00Z',
    instrumentId: ID,
    spots: [{ id: ID, typed: ' 204.6 ', pitches: 16 }],
  }
  it('is taken as typed, without the blanks around it', () => {
    const parsed = safeParse(TakeReading, reading)
    expect(parsed.success && parsed.output.spots[0]?.typed).toBe('204.6')
  })
  it.each<[string, object, Record<string, string>]>([
    ['no id', { id: '7' }, { id: 'id-malformed' }],
    ['a day for a moment', { occurredAt: '2026-03-01' }, { occurredAt: 'moment-malformed' }],
    ['a ninth spot', { spots: Array.from({ length: 9 }, () => ({ id: ID, typed: '1' })) }, { spots: 'spots-too-many' }],
    ['one pitch', { spots: [{ id: ID, typed: '1', pitches: 1 }] }, { 'spots.0.pitches': 'count-malformed' }],
    ['a furnace', { conditions: { run: 'lower', chainCelsius: 400 } }, { 'conditions.chainCelsius': 'celsius-range' }],
    [
      'an anvil hung on it',
      { conditions: { run: 'lower', preloadKg: 90 } },
      { 'conditions.preloadKg': 'preload-range' },
    ],
    ['a run there is not', { conditions: { run: 'middle' } }, { 'conditions.run': 'field-invalid' }],
    ['a sign nobody knows', { signs: ['rattles'] }, { 'signs.0': 'field-invalid' }],
    ['a spot without text', { spots: [{ id: ID, typed: '', pitches: 16 }] }, { 'spots.0.typed': 'text-missing' }],
    ['half a pitch', { spots: [{ id: ID, typed: '1', pitches: 0.5 }] }, { 'spots.0.pitches': 'count-malformed' }],
    [
      'a ninth place',
      { spots: [{ id: ID, typed: '1', pitches: 2, place: 9 }] },
      { 'spots.0.place': 'place-malformed' },
    ],
    ['furlongs', { odometer: { id: ID, typed: '1', unit: 'furlong' } }, { 'odometer.unit': 'unit-unknown' }],
    ['a novel for a note', { note: 'x'.repeat(501) }, { note: 'text-too-long' }],
  ])('%s is named at its field', (_, change, expected) => {
    expect(wrong(TakeReading, { ...reading, ...change })).toEqual(expected)
  })
})

describe('what people type elsewhere', () => {
  it('is trimmed and bounded', () => {
    expect(wrong(SignIn, { shop: 's', name: '   ', password: 'x' })).toEqual({ name: 'text-missing' })
    expect(wrong(ChangeBike, { tag: 'a b' })).toEqual({ tag: 'tag-malformed' })
    expect(wrong(ChangeBike, { label: 'x'.repeat(61) })).toEqual({ label: 'text-too-long' })
    expect(wrong(ChangeBike, {})).toEqual({})
  })
  it('takes initials in any case and a PIN of digits', () => {
    const parsed = safeParse(SwitchPerson, { initials: 'rp', pin: '2280' })
    expect(parsed.success && parsed.output.initials).toBe('RP')
    expect(wrong(SwitchPerson, { initials: 'rp', pin: '12a4' })).toEqual({ pin: 'pin-malformed' })
  })
})

describe('the sentences for problems', () => {
  it('are sentences, and say what to do without naming anything inside', () => {
    for (const [code, sentence] of Object.entries(problems)) {
      expect(code).toMatch(/^[a-z]+(-[a-z]+)*$/)
      expect(sentence, code).toMatch(/^[A-Z].*[.?]$/)
      expect(sentence, code).not.toMatch(/undefined|null|exception|SQL|stack/i)
    }
  })
})
