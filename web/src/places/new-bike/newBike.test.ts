import { describe, expect, it } from 'vitest'
import { AddBike, fieldProblems } from '@pelrin/contract'
import { begunWith, newBikeIn, type TypedBike } from './newBike.ts'

const id = '01890000-0000-7000-8000-000000000001'
const ids = {
  customer: '01890000-0000-7000-8000-000000000002',
  chain: '01890000-0000-7000-8000-000000000003',
  fitting: '01890000-0000-7000-8000-000000000004',
  odometer: '01890000-0000-7000-8000-000000000005',
}
const drive = { type: 'derailleur', speeds: '11', fronts: '46/30', sprockets: '11-42', motor: false } as const
const chain = { name: 'Tindrel 11', pitches: '', care: 'unknown' } as const
const typed = (more: Partial<TypedBike> = {}): TypedBike => ({
  ...begunWith('Edda Quill', 'km'),
  ...{ label: 'Estuary', kind: 'gravel', drive, chain },
  ...more,
})
const wrong = (bike: TypedBike): Record<string, string> =>
  Object.fromEntries(fieldProblems(AddBike, newBikeIn(bike, id, ids)).map(({ path, code }) => [path, code]))

describe('a new bike as typed', () => {
  it('is begun with the name that was looked for, or with the tag', () => {
    expect(begunWith('Edda Quill', 'km')).toMatchObject({ tag: '', customer: { new: { name: 'Edda Quill' } } })
    expect(begunWith('0412', 'km')).toMatchObject({ tag: '0412', customer: { new: { name: '' } } })
  })
  it('is what the server takes, empty fields as not known', () => {
    const bike = typed({ chain: { ...chain, pitches: '114' }, odometer: { typed: ' 1204 ' } })
    expect(wrong(bike)).toEqual({})
    expect(newBikeIn(bike, id, ids)).toMatchObject({
      customer: { id: ids.customer, new: { name: 'Edda Quill', phone: null } },
      tag: null,
      drive: { speeds: 11, fronts: [46, 30], sprockets: [11, 42] },
      chain: { pitches: 114, fittedNew: false },
      odometer: { typed: '1204' },
    })
  })
  it('names a customer who is known, and nobody new beside them', () => {
    const known = { id: ids.customer, name: 'Edda Quill', phone: null, bikes: [] }
    expect(newBikeIn(typed({ known }), id, ids).customer).toEqual({ id: ids.customer })
  })
  it('has one speed where there is one, and no chain where none is on', () => {
    const bike = typed({ drive: { ...drive, type: 'single-speed', speeds: '', sprockets: '18' }, chainIs: 'none' })
    expect(wrong(bike)).toEqual({})
    expect(newBikeIn(bike, id, ids)).toMatchObject({ drive: { speeds: 1 }, chain: null })
  })
  it('is refused at once, everywhere, where something is missing or a number is none', () => {
    expect(wrong(begunWith('', 'km'))).toEqual({
      'customer.new.name': 'text-missing',
      label: 'text-missing',
      kind: 'text-missing',
      'drive.speeds': 'number-malformed',
      'drive.fronts': 'teeth-missing',
      'drive.sprockets': 'teeth-missing',
      'chain.name': 'text-missing',
    })
    const malformed = { drive: { ...drive, speeds: 'eleven', fronts: '50 x' }, chain: { ...chain, pitches: 'all' } }
    expect(wrong(typed(malformed))).toEqual({
      'drive.speeds': 'number-malformed',
      'drive.fronts.1': 'teeth-malformed',
      'chain.pitches': 'number-malformed',
    })
    expect(wrong(typed({ chainIs: 'none', chain: { ...chain, pitches: 'all' } }))).toEqual({})
  })
})
