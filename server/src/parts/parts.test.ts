import { v7 } from 'uuid'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { chainProblems, jointProblems, speedsMatch } from '@pelrin/core'
import { endpoints, type BikeParts, type ChangeDrive } from '@pelrin/contract'
import { inShop } from '../db/index.ts'
import { wornChains } from '../demo/catalogue.ts'
import { rebuildState } from '../state/bikeState.ts'
import { bikeNamed, startShop, type RunningShop } from '../testing/shop.ts'
import { catalogue } from './catalogueStore.ts'

let shop: RunningShop
beforeAll(async () => {
  shop = await startShop()
})
afterAll(() => shop.close())

const idOf = async (text: string): Promise<string> => (await bikeNamed(shop.device, text)).id
const partsOf = async (text: string, query: Record<string, string> = {}): Promise<BikeParts> =>
  (await shop.device.ask(endpoints.bikeParts, { params: { id: await idOf(text) }, query })).body
const change = async (text: string, body: ChangeDrive, version?: number) => {
  const id = await idOf(text)
  const { body: parts } = await shop.device.ask(endpoints.bikeParts, { params: { id } })
  return shop.device.ask(endpoints.changeDrive, { params: { id }, version: version ?? parts.version, body })
}
const shopId = async (): Promise<string> => (await shop.device.ask(endpoints.session)).body.shop.id

describe('the demo catalogue', () => {
  it('is about a hundred parts of every family, each of which can be', async () => {
    const {
      catalogue: { chains, joints },
    } = await inShop(shop.database, await shopId(), null, catalogue)
    expect(chains.length + joints.length).toBeGreaterThan(95)
    for (const speeds of [1, 7, 9, 10, 11, 12, 13])
      expect(
        chains.some((chain) => speedsMatch(chain.speeds, speeds)),
        `${speeds}`,
      ).toBe(true)
    for (const chain of chains) expect(chainProblems(chain), chain.name).toEqual([])
    for (const joint of joints) expect(jointProblems(joint), joint.name).toEqual([])
    expect(new Set(chains.map(({ profile }) => profile))).toEqual(new Set(['plain', 'asymmetric', 'flat-top']))
    expect(chains.some(({ roller }) => roller === 'large')).toBe(true)
    const names = chains.map(({ maker, name }) => `${maker} ${name}`)
    for (const worn of wornChains()) expect(names).toContain(worn)
  })
})

describe('parts for a bike', () => {
  it('are ranked, the best with no word against it, and joints are for the best', async () => {
    const parts = await partsOf('ivo marsh')
    const [best] = parts.chains
    expect(best?.outcome).toBe('fits')
    expect(best?.part).toMatchObject({ maker: 'Varrow', name: 'Eleven', speeds: [11] })
    expect(parts.chainId).toBe(best?.part.id)
    expect(parts.pitches).toBe(116)
    const [joint] = parts.joints
    expect(joint?.outcome).toBe('fits')
    expect(joint?.part.model).toMatchObject({ kind: 'link', speeds: [11] })
    expect(parts.chainsExcluded).toBeGreaterThan(20)
  })
  it('never rank what does not fit above what does', async () => {
    for (const bike of ['courier', 'sand racer', 'school pool 7', 'bakery van 2', 'island mail 4', 'tandem']) {
      const { chains, joints } = await partsOf(bike)
      for (const list of [chains, joints]) {
        const excluded = list.findIndex(({ outcome }) => outcome === 'does-not-fit')
        if (excluded >= 0)
          expect(
            list.slice(excluded).every(({ outcome }) => outcome === 'does-not-fit'),
            bike,
          ).toBe(true)
      }
      expect(chains[0]?.outcome, bike).not.toBe('does-not-fit')
    }
  })
  it('of a hub gear are broad chains, closed by a clip or a link', async () => {
    const { chains, joints, pitches } = await partsOf('bakery van 2')
    expect(chains[0]?.part.speeds).toEqual([1])
    expect(pitches! % 2).toBe(0)
    expect(joints.slice(0, 2).every(({ part }) => part.model !== 're-press' && part.model.speeds.includes(1))).toBe(
      true,
    )
  })
  it('are answered whether they fit or not when asked about by name', async () => {
    const { chains } = await partsOf('ivo marsh', { ask: 'korvane ten' })
    const asked = chains.find(({ part }) => part.maker === 'Korvane' && part.name === 'Ten')
    expect(asked?.outcome).toBe('does-not-fit')
    expect(asked?.rules.find(({ outcome }) => outcome === 'does-not-fit')).toMatchObject({
      rule: 'speeds',
      values: { speeds: 11, made: '10' },
    })
  })
  it('are matched for another count, and joints for another chain, when told so', async () => {
    const longer = await partsOf('ivo marsh', { pitches: '130' })
    expect(longer.chains.find(({ part }) => part.name === 'Eleven')?.rules).toContainEqual(
      expect.objectContaining({ rule: 'length', outcome: 'caution', reason: 'length-boxes' }),
    )
    const { chains } = await partsOf('ivo marsh')
    const other = chains.find(({ part }) => part.maker === 'Ostling')!.part
    expect((await partsOf('ivo marsh', { chain: other.id })).chainId).toBe(other.id)
    const unknown = await shop.device.ask(endpoints.bikeParts, {
      params: { id: await idOf('ivo marsh') },
      query: { chain: '0192c7f2-5340-7b38-85ad-000000000000' },
    })
    expect([unknown.status, unknown.problem.fields?.[0]?.code]).toEqual([422, 'part-unknown'])
  })
})

describe('what a chain is closed with', () => {
  const see = async (text: string, body: Record<string, unknown>) =>
    shop.device.ask(endpoints.seeJoint, { params: { id: await idOf(text) }, body: { id: v7(), ...body } })
  it('is known of most, with its closings', async () => {
    const { present, presentChainId } = await partsOf('courier')
    expect(present).toMatchObject({ kind: 'link', closings: 3, firm: true, model: { speeds: [12] } })
    expect(presentChainId).not.toBeNull()
  })
  it('is written down as it is seen, and judged when the chain is to be closed again', async () => {
    const { joints } = await partsOf('courier')
    const varrow = joints.find(({ part }) => part.model !== 're-press' && part.model.maker === 'Varrow')!.part
    const partId = varrow.model === 're-press' ? '' : varrow.model.id
    expect((await see('courier', { kind: 'link', partId, closings: 5, firm: true })).status).toBe(200)
    const strict = await partsOf('courier', { joints: 'on' })
    expect(strict.joints[0]).toMatchObject({ outcome: 'does-not-fit', part: { closings: 5 } })
    const byFeel = await partsOf('courier', { joints: 'on', school: 'by-feel' })
    expect(byFeel.joints[0]?.outcome).toBe('caution')
    await see('courier', { kind: 'pin' })
    expect((await partsOf('courier')).present).toMatchObject({ kind: 'pin', model: null, closings: null })
  })
  it('that is no such part, or closed less than never, is refused at its field', async () => {
    const chain = (await partsOf('courier')).chains[0]!.part.id
    const wrong = await see('courier', { kind: 'link', partId: chain })
    expect(wrong.problem.fields?.[0]).toMatchObject({ path: 'partId', code: 'part-unknown' })
    const negative = await see('courier', { kind: 'link', closings: -1 })
    expect(negative.problem.fields?.[0]).toMatchObject({ path: 'closings', code: 'closings-range' })
  })
})

describe('a tandem', () => {
  it('has a second chain of its own length, over two rings', async () => {
    const timing = await partsOf('tandem', { of: 'timing' })
    expect(timing.pitches).toBe(150)
    expect(timing.chains[0]?.part.speeds).toEqual([1])
    expect((await partsOf('tandem')).pitches).toBe(114)
  })
})

describe('what the shop assumes', () => {
  it('goes into the length a bike’s parts are matched for', async () => {
    const before = (await partsOf('courier')).pitches!
    const { assumptions } = (await shop.device.ask(endpoints.houseRules)).body
    const { status } = await shop.device.ask(endpoints.changeRules, {
      body: {
        id: v7(),
        change: {
          kind: 'assumptions',
          fromVersion: assumptions.version,
          overrides: { ...assumptions.overrides, 'length.added': 6 },
        },
        reason: 'a test',
      },
    })
    expect(status).toBe(200)
    expect((await partsOf('courier')).pitches).toBe(before + 4)
  })
})

describe('a drive', () => {
  it('with a fact missing says which, and what it would decide', async () => {
    await change('ivo marsh', { systemId: null, chainstayMm: null })
    const parts = await partsOf('ivo marsh')
    expect(parts.wanted.find(({ fact }) => fact === 'system')?.rules).toContain('system')
    expect(parts.chains[0]?.outcome).toBe('not-known')
    // The old chain's count is all there is to go by.
    expect(parts.pitches).toBe(parts.oldPitches)
  })
  it('is changed by version, written down, and its chain judged anew by its speeds', async () => {
    const { systems } = await partsOf('ivo marsh')
    const system = systems.find(({ name }) => name === 'Korvane Wharf 10')!
    const answer = await change('ivo marsh', { speeds: 10, systemId: system.id, chainstayMm: 455 })
    expect(answer.body.drive).toMatchObject({ speeds: 10, system: { name: system.name }, chainstayMm: 455 })
    const bike = await bikeNamed(shop.device, 'ivo marsh')
    expect(bike.limit).toBe(0.75)
    expect((await partsOf('ivo marsh')).chains[0]?.part.speeds).toEqual([10])
    const stale = await change('ivo marsh', { speeds: 9 }, 1)
    expect(stale.status).toBe(412)
    expect(stale.problem.current).toMatchObject({ drive: { speeds: 10 } })
    expect(await inShop(shop.database, await shopId(), null, rebuildState)).toMatchObject({ differing: [] })
  })
  it.each<[string, ChangeDrive, string, string]>([
    ['a ring of seven teeth', { fronts: [7] }, 'fronts', 'teeth-few'],
    ['sprockets out of order', { sprockets: [11, 15, 13] }, 'sprockets', 'sprockets-order'],
    ['a sprocket twice', { sprockets: [11, 11, 13] }, 'sprockets', 'sprocket-twice'],
    ['a chainstay in inches', { chainstayMm: 16.5 }, 'chainstayMm', 'chainstay-inches'],
    ['an axle the wrong way round', { axleMm: { from: 440, to: 420 } }, 'axleMm.to', 'axle-order'],
    ['one pulley', { pulleys: [11] }, 'pulleys', 'pulleys-two'],
    ['a timing chain over one ring', { timing: { teeth: [40], fromMm: 690, toMm: 714 } }, 'timing.teeth', 'timing-two'],
    ['cranks in inches', { timing: { teeth: [40, 40], fromMm: 27, toMm: 28 } }, 'timing.fromMm', 'timing-short'],
    ['four rings', { fronts: [20, 30, 40, 50] }, 'fronts', 'rings-many'],
    ['a system there is not', { systemId: '0192c7f2-5340-7b38-85ad-000000000000' }, 'systemId', 'system-unknown'],
  ])('with %s is refused at its field, with what to do', async (_, body, path, code) => {
    const { status, problem } = await change('sand racer', body)
    expect(status).toBe(422)
    expect(problem.fields?.[0]).toMatchObject({ path, code })
    expect(problem.fields![0]!.detail.length).toBeGreaterThan(10)
  })
})
