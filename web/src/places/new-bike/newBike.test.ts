import { describe, expect, it } from 'vitest'
import { safeParse } from 'valibot'
import { AddBike } from '@pelrin/contract'
import { fieldOf, newBikeBody, NOTHING_TYPED, wrongFields, type NewBikeFields } from './newBike.ts'

const ids = {
  bike: '01890000-0000-7000-8000-000000000001',
  customer: '01890000-0000-7000-8000-000000000002',
  chain: '01890000-0000-7000-8000-000000000003',
  fitting: '01890000-0000-7000-8000-000000000004',
  odometer: '01890000-0000-7000-8000-000000000005',
}
const typed = (more: Partial<NewBikeFields> = {}): NewBikeFields => ({
  ...NOTHING_TYPED,
  customer: 'Edda Quill',
  label: 'Estuary',
  kind: 'gravel',
  speeds: '11',
  fronts: '46/30',
  sprockets: '11-42',
  chainName: 'Tindrel 11',
  ...more,
})

describe('a new bike as typed', () => {
  it('is what the server takes, empty fields as not known', () => {
    const body = newBikeBody(typed({ pitches: '114', odometer: ' 1204 ' }), ids)
    expect(safeParse(AddBike, body).success).toBe(true)
    expect(body).toMatchObject({
      customer: { id: ids.customer, new: { name: 'Edda Quill', phone: null } },
      tag: null,
      drive: { speeds: 11, fronts: [46, 30], sprockets: [11, 42] },
      chain: { pitches: 114, fittedNew: false },
      odometer: { typed: '1204' },
    })
  })
  it('names a customer who is known, and nobody new beside them', () => {
    const body = newBikeBody(typed({ customerId: ids.customer, phone: 'left from before' }), ids)
    expect(body.customer).toEqual({ id: ids.customer })
  })
  it('has one speed where there is one, and no chain where none is on', () => {
    const body = newBikeBody(typed({ type: 'single-speed', speeds: '', sprockets: '18', chainIs: 'none' }), ids)
    expect([body.drive.speeds, body.chain]).toEqual([1, null])
  })
  it('is refused at once, everywhere, where something is missing or a number is none', () => {
    expect(wrongFields(NOTHING_TYPED)).toEqual({
      customer: 'text-missing',
      label: 'text-missing',
      kind: 'text-missing',
      chainName: 'text-missing',
      speeds: 'number-malformed',
      fronts: 'teeth-missing',
      sprockets: 'teeth-missing',
    })
    expect(wrongFields(typed({ speeds: 'eleven', fronts: '50 x', pitches: 'all' }))).toEqual({
      speeds: 'number-malformed',
      fronts: 'teeth-malformed',
      pitches: 'number-malformed',
    })
    expect(wrongFields(typed({ chainIs: 'none', pitches: 'all' }))).toEqual({})
  })
  it('takes each of the server’s problems to the field it was typed in', () => {
    expect(
      ['customer.id', 'customer.new.phone', 'drive.fronts.0', 'drive.speeds', 'chain.pitches', 'tag'].map(fieldOf),
    ).toEqual(['customer', 'phone', 'fronts', 'speeds', 'pitches', 'tag'])
    expect(fieldOf('chain.fittingId')).toBeNull()
  })
})
