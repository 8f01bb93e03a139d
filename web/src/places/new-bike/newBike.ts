import type { CareKind } from '@pelrin/core'
import type { endpoints, Input } from '@pelrin/contract'
import { typedNumber } from '../../messages/typedNumber.ts'
import { typedTeeth } from '../../messages/typedTeeth.ts'

/** A new bike as it is typed. */
export interface NewBikeFields {
  /** Whose it is, where they are known here. */
  customerId: string | null
  customer: string
  phone: string
  label: string
  kind: string
  maker: string
  model: string
  frameMark: string
  tag: string
  type: 'derailleur' | 'hub-gear' | 'single-speed'
  speeds: string
  fronts: string
  sprockets: string
  motor: boolean
  chainIs: 'came' | 'fresh' | 'none'
  chainName: string
  pitches: string
  care: CareKind
  odometer: string
  unit: 'km' | 'mi'
}

export const NOTHING_TYPED: NewBikeFields = {
  customerId: null,
  customer: '',
  phone: '',
  label: '',
  kind: '',
  maker: '',
  model: '',
  frameMark: '',
  tag: '',
  type: 'derailleur',
  speeds: '',
  fronts: '',
  sprockets: '',
  motor: false,
  chainIs: 'came',
  chainName: '',
  pitches: '',
  care: 'unknown',
  odometer: '',
  unit: 'km',
}

/** Ids of what may be written, made once, so that what is sent again is the same. */
export interface NewBikeIds {
  readonly bike: string
  readonly customer: string
  readonly chain: string
  readonly fitting: string
  readonly odometer: string
}

const orNull = (typed: string): string | null => (typed.trim() === '' ? null : typed.trim())

/** What was typed as the server takes it. */
export function newBikeBody(fields: NewBikeFields, ids: NewBikeIds): Input<typeof endpoints.addBike.body> {
  const { customerId, type, chainIs } = fields
  return {
    id: ids.bike,
    customer:
      customerId === null
        ? { id: ids.customer, new: { name: fields.customer, phone: orNull(fields.phone) } }
        : { id: customerId },
    label: fields.label,
    kind: fields.kind,
    maker: orNull(fields.maker),
    model: orNull(fields.model),
    tag: orNull(fields.tag),
    frameMark: orNull(fields.frameMark),
    odometerUnit: fields.unit,
    drive: {
      type,
      speeds: type === 'single-speed' ? 1 : typedNumber(fields.speeds)!,
      fronts: typedTeeth(fields.fronts),
      sprockets: typedTeeth(fields.sprockets),
      motor: fields.motor,
    },
    chain:
      chainIs === 'none'
        ? null
        : {
            id: ids.chain,
            fittingId: ids.fitting,
            name: fields.chainName,
            pitches: typedNumber(fields.pitches) ?? null,
            care: fields.care,
            fittedNew: chainIs === 'fresh',
          },
    odometer: fields.odometer.trim() === '' ? null : { id: ids.odometer, typed: fields.odometer.trim() },
  }
}

/** What is missing, or no number and would not even arrive as typed; by field, all at once. */
export function wrongFields(fields: NewBikeFields): Partial<Record<keyof NewBikeFields, string>> {
  const wrong: Partial<Record<keyof NewBikeFields, string>> = {}
  const wanted = ['customer', 'label', 'kind', ...(fields.chainIs === 'none' ? [] : (['chainName'] as const))] as const
  for (const name of wanted) if (fields[name].trim() === '') wrong[name] = 'text-missing'
  if (fields.type !== 'single-speed' && typedNumber(fields.speeds) === undefined) wrong.speeds = 'number-malformed'
  for (const name of ['fronts', 'sprockets'] as const)
    if (fields[name].trim() === '') wrong[name] = 'teeth-missing'
    else if (typedTeeth(fields[name]).some(Number.isNaN)) wrong[name] = 'teeth-malformed'
  if (fields.chainIs !== 'none' && fields.pitches.trim() !== '' && typedNumber(fields.pitches) === undefined)
    wrong.pitches = 'number-malformed'
  return wrong
}

/** The field of the form a problem of the server concerns; null where it is none of them. */
export function fieldOf(path: string): keyof NewBikeFields | null {
  const known: Readonly<Record<string, keyof NewBikeFields>> = {
    'customer.id': 'customer',
    'customer.new.name': 'customer',
    'customer.new.phone': 'phone',
    'chain.name': 'chainName',
    'odometer.typed': 'odometer',
  }
  const name = known[path] ?? path.replace(/^(drive|chain)\./, '').replace(/\.\d+$/, '')
  return name in NOTHING_TYPED ? (name as keyof NewBikeFields) : null
}
