import { CARE_KINDS } from '@pelrin/core'
import { CustomerLine, type endpoints, type Input } from '@pelrin/contract'
import * as v from 'valibot'
import { numberIn, numberWanted, textIn } from '../../forms/typed.ts'
import { typedTeeth } from '../../forms/typedTeeth.ts'

/** Under what it is kept on the device while it is typed: it names somebody. */
export const NEW_BIKE_DRAFT = 'new bike'

/** A new bike as it is typed, each thing where the write has it. */
export const TypedBike = v.object({
  /** What was looked for and not found: another search begins anew. */
  asked: v.string(),
  /** Whose it is, where they are known here. */
  known: v.nullable(CustomerLine),
  customer: v.object({ new: v.object({ name: v.string(), phone: v.string() }) }),
  label: v.string(),
  kind: v.string(),
  maker: v.string(),
  model: v.string(),
  frameMark: v.string(),
  tag: v.string(),
  drive: v.object({
    type: v.picklist(['derailleur', 'hub-gear', 'single-speed']),
    speeds: v.string(),
    fronts: v.string(),
    sprockets: v.string(),
    motor: v.boolean(),
  }),
  chainIs: v.picklist(['came', 'fresh', 'none']),
  chain: v.object({ name: v.string(), pitches: v.string(), care: v.picklist(CARE_KINDS) }),
  odometer: v.object({ typed: v.string() }),
  odometerUnit: v.picklist(['km', 'mi']),
})
export type TypedBike = v.InferOutput<typeof TypedBike>

/** Nothing typed but what was looked for: a name, or what stands on a tag. */
export const begunWith = (asked: string, odometerUnit: TypedBike['odometerUnit']): TypedBike => {
  const isTag = /\d/.test(asked)
  return {
    asked,
    known: null,
    customer: { new: { name: isTag ? '' : asked, phone: '' } },
    label: '',
    kind: '',
    maker: '',
    model: '',
    frameMark: '',
    tag: isTag ? asked : '',
    drive: { type: 'derailleur', speeds: '', fronts: '', sprockets: '', motor: false },
    chainIs: 'came',
    chain: { name: '', pitches: '', care: 'unknown' },
    odometer: { typed: '' },
    odometerUnit,
  }
}

/** Ids of what is written beside the bike, made once, so that what is sent again is the same. */
export interface NewBikeIds {
  readonly customer: string
  readonly chain: string
  readonly fitting: string
  readonly odometer: string
}

/** What was typed as it is written, under an id of the bike. */
export function newBikeIn(typed: TypedBike, id: string, ids: NewBikeIds): Input<typeof endpoints.addBike.body> {
  const { known, customer, drive, chain, chainIs } = typed
  return {
    id,
    customer: known
      ? { id: known.id }
      : { id: ids.customer, new: { name: customer.new.name, phone: textIn(customer.new.phone) } },
    label: typed.label,
    kind: typed.kind,
    maker: textIn(typed.maker),
    model: textIn(typed.model),
    tag: textIn(typed.tag),
    frameMark: textIn(typed.frameMark),
    odometerUnit: typed.odometerUnit,
    drive: {
      type: drive.type,
      speeds: drive.type === 'single-speed' ? 1 : numberWanted(drive.speeds),
      fronts: typedTeeth(drive.fronts),
      sprockets: typedTeeth(drive.sprockets),
      motor: drive.motor,
    },
    chain:
      chainIs === 'none'
        ? null
        : {
            id: ids.chain,
            fittingId: ids.fitting,
            name: chain.name,
            pitches: numberIn(chain.pitches),
            care: chain.care,
            fittedNew: chainIs === 'fresh',
          },
    odometer: textIn(typed.odometer.typed) === null ? null : { id: ids.odometer, typed: typed.odometer.typed.trim() },
  }
}
