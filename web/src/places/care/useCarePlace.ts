import { useRef, useState } from 'react'
import { useTranslation } from 'react-i18next'
import { useNavigate } from 'react-router'
import { v7 } from 'uuid'
import {
  cleaningForWax,
  cleaningNeeded,
  potRequest,
  READY_AT,
  TREATMENTS,
  usualCleaning,
  waxCaseOf,
  takesOff,
  type Assumptions,
  type Cleaning,
  type Treatment,
} from '@pelrin/core'
import { endpoints, type BikeCare, type BikeRecord, type Closing } from '@pelrin/contract'
import { ask } from '../../api/client.ts'
import { useBikeWrite } from '../../api/useBikeWrite.ts'
import { useSurroundings } from '../../app/surroundings.ts'
import { useTypedAhead } from '../../keys/typing.tsx'
import { useCommands } from '../../keys/useCommands.ts'
import { asksClosing } from '../../pieces/ClosingDialog.tsx'
import { atInZone } from '../../messages/shopClock.ts'

/** The bike whose chain is cared for. */
export interface CareBike {
  readonly bikeId: string
  readonly record: BikeRecord
  readonly care: BikeCare
  readonly unit: 'km' | 'mi'
  readonly customer: string
  readonly assumed: Assumptions
}

/** In the pot, a chain hangs the evening before it is fitted for a day it is wanted; null where none is near. */
const readyBy = ({ eventDates }: BikeCare): string | null => {
  const next = eventDates.find(({ care }) => care?.word === 'treat')?.care
  return next ? atInZone(next.by, READY_AT).toISOString() : null
}

/** What was chosen at the bench, what it writes down, and what the keys do. */
export function useCarePlace(bike: CareBike) {
  const { bikeId, care } = bike
  const { t } = useTranslation()
  const navigate = useNavigate()
  const { tell } = useSurroundings()
  const { wrong, busy, write } = useBikeWrite(bikeId, endpoints.recordCare.access)
  const usual = TREATMENTS.find((one) => one === care.chain?.care) ?? null
  const [chosen, setChosen] = useState<Treatment>(usual ?? 'dry-oil')
  /** How it was cleaned, where somebody said; else as it usually is for the treatment. */
  const [said, setCleaning] = useState<Cleaning | null>(null)
  /** The treatment that is to be written, while it is asked how the chain was closed after it. */
  const [closing, setClosing] = useState<Treatment | null>(null)
  const [atHome, setAtHome] = useState(false)
  const [sheet, setSheet] = useState<'plan' | 'wanted' | null>(null)
  const [back, setBack] = useState<string | null>(null)
  const writing = useRef(new Set<string>())
  const before = care.chain?.care ?? 'unknown'
  const waxCase = waxCaseOf({
    before,
    treated: care.events.some(({ kind }) => kind === 'treated'),
    readyWaxed: care.chain?.readyWaxed ?? false,
    washed: care.wet,
    ridden: care.next?.ridden ?? { wet: 0, gritty: 0 },
  })
  const cleaningFor = (one: Treatment): Cleaning =>
    said ?? (one === 'immersion-wax' ? cleaningForWax(waxCase, care.waxing.rewax) : usualCleaning(care.events))
  const cleaning = cleaningFor(chosen)
  const [newest] = care.events

  const record = async (
    what: { kind: 'treated' | 'wash' | 'squeak'; care?: Treatment },
    words: string,
    how: Closing | null = null,
  ): Promise<void> => {
    // What is being written already is not written twice; anything else is, whatever is under way.
    const asked = `${what.kind} ${what.care ?? ''}`
    if (!care.chain || writing.current.has(asked)) return
    writing.current.add(asked)
    const id = v7()
    const body = {
      id,
      ...what,
      ...(what.care
        ? { cleaning: cleaningNeeded({ care: what.care, before, cleaning: cleaningFor(what.care) }), atHome }
        : {}),
      occurredAt: new Date().toISOString(),
      fittingId: care.chain.fittingId,
      closing: how,
    }
    // Said of this treatment, and of none after it: at once, so that what is ticked while it is written stays ticked.
    if (what.care) setAtHome(false)
    const written = await write(() => ask(endpoints.recordCare, { params: { id: bikeId }, key: id, body }))
    writing.current.delete(asked)
    if (written) {
      setClosing(null)
      tell(words)
    } else if (what.care) setAtHome(atHome)
  }
  /** Off its bike and on again: what closes it is asked for, but of what was done at home. */
  const treat = (one: Treatment, how: Closing | null = null): void => {
    setChosen(one)
    const off = takesOff({ care: one, cleaning: cleaningFor(one), before })
    if (how === null && off && !atHome && asksClosing(care.chain?.joint ?? null, one === 'immersion-wax'))
      setClosing(one)
    else void record({ kind: 'treated', care: one }, t('caring.written', { care: t(`care.${one}`) }), how)
  }
  const takeBack = async (factId: string, reason: string): Promise<void> => {
    const id = v7()
    await ask(endpoints.withdrawCare, { params: { id: factId }, key: id, body: { id, reason } })
    await write(() => Promise.resolve(true))
  }
  const undoNewest = (): void => {
    if (!newest || busy) return
    const id = v7()
    const body = { id, reason: t('caring.undoReason') }
    void write(() => ask(endpoints.withdrawCare, { params: { id: newest.id }, key: id, body }))
  }
  const intoPot = async (): Promise<void> => {
    if (!care.chain || busy) return
    const request = potRequest({
      waxCase,
      cleaning: cleaningFor('immersion-wax'),
      washed: care.wet,
      recipe: care.waxing.recipe,
    })
    const chains = [{ id: v7(), chainId: care.chain.id, readyBy: readyBy(care), ...request }]
    if (await write(() => ask(endpoints.addToPot, { key: v7(), body: { chains } }))) tell(t('pot.fromCareDone'))
  }
  const wash = (): Promise<void> => record({ kind: 'wash' }, t('caring.washWritten'))
  const squeak = (): Promise<void> => record({ kind: 'squeak' }, t('caring.squeakWritten'))
  const undo = newest ? undoNewest : null
  const toPot = usual === 'immersion-wax' ? intoPot : null
  const byDigit = (digit: string): void => {
    const one = TREATMENTS[Number(digit) - 1]
    if (one) treat(one)
  }
  const to = (path: string) => () => void navigate(`/bikes/${bikeId}${path}`)
  const measure = to('/measure')
  useTypedAhead(byDigit)
  useCommands('care', {
    treatBy: (digit) => byDigit(String(digit)),
    treat: usual ? () => treat(usual) : null,
    wash,
    squeak,
    undo,
    toPot,
    wanted: () => setSheet('wanted'),
    plan: () => setSheet('plan'),
    measure,
    record: to(''),
    back: to(''),
  })
  const dropDate = (dateId: string): void =>
    void write(() => ask(endpoints.dropEventDate, { params: { id: dateId }, key: v7() }))
  return {
    ...bike,
    usual,
    chosen,
    setChosen,
    cleaning,
    setCleaning,
    waxCase,
    atHome,
    setAtHome,
    before,
    busy,
    wrong,
    treat,
    wash,
    squeak,
    undo,
    toPot,
    takeBack,
    dropDate,
    measure,
    sheet,
    setSheet,
    back,
    setBack,
    closing,
    setClosing,
  }
}
export type CareView = ReturnType<typeof useCarePlace>
