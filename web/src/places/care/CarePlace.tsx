import {
  Box,
  Button,
  FormControlLabel,
  Checkbox,
  Stack,
  ToggleButton,
  ToggleButtonGroup,
  Typography,
} from '@mui/material'
import dayjs from 'dayjs'
import { useRef, useState } from 'react'
import { useTranslation } from 'react-i18next'
import { useNavigate, useParams } from 'react-router'
import { v7 } from 'uuid'
import {
  assumptionsWith,
  careExplained,
  careSteps,
  CLEANINGS,
  cleaningNeeded,
  TREATMENTS,
  type Assumptions,
  type Cleaning,
  type Treatment,
} from '@pelrin/core'
import { endpoints, type BikeCare } from '@pelrin/contract'
import { ask } from '../../api/client.ts'
import { useBikeCare } from '../../api/queries.ts'
import { useBikeWrite } from '../../api/useBikeWrite.ts'
import { useSurroundings } from '../../app/surroundings.ts'
import { useTypedAhead } from '../../keys/typing.tsx'
import { distance } from '../../messages/format.ts'
import { Beside } from '../../pieces/Beside.tsx'
import { KeyButton } from '../../pieces/KeyButton.tsx'
import { KeyCap } from '../../pieces/KeyCap.tsx'
import { OfBike } from '../../pieces/OfBike.tsx'
import { ReasonDialog } from '../../pieces/ReasonDialog.tsx'
import { ink } from '../../theme/theme.ts'
import { CareHistory } from './CareHistory.tsx'
import { CarePlanDialog } from './CarePlanDialog.tsx'
import { CareScale } from './CareScale.tsx'
import { CareStepList } from './CareStepList.tsx'
import { WantedDays } from './WantedDays.tsx'
import { WantedDialog } from './WantedDialog.tsx'
import { Why } from '../../pieces/Why.tsx'
import { isDue, useCareWords } from '../../pieces/useCareWords.ts'
import { Refused } from '../../forms/Refused.tsx'
import { useCommands } from '../../keys/useCommands.ts'

/** The care of the chain on a bike: when it is due and why, written down by one more key, its steps beside. */
export function CarePlace() {
  const { t } = useTranslation()
  const { id = '' } = useParams()
  const care = useBikeCare(id)
  return (
    <OfBike bikeId={id} title={t('caring.title')} needs={[care]} also={care.data?.chain?.name}>
      {({ lastOdometer, customer, assumptions }) =>
        care.data && (
          <CareOf
            bikeId={id}
            care={care.data}
            unit={lastOdometer?.unit ?? 'km'}
            customer={customer.name}
            assumed={assumptionsWith(assumptions)}
          />
        )
      }
    </OfBike>
  )
}

/** In the pot, a chain hangs the evening before it is fitted for a day it is wanted; null where none is near. */
const readyBy = ({ eventDates }: BikeCare): string | null => {
  const next = eventDates.find(({ care }) => care?.word === 'treat')?.care
  return next ? dayjs(`${next.by}T17:00`).toISOString() : null
}

const usualOf = ({ chain }: BikeCare): Treatment | null => TREATMENTS.find((one) => one === chain?.care) ?? null

function CareOf({
  bikeId,
  care,
  unit,
  customer,
  assumed,
}: {
  bikeId: string
  care: BikeCare
  unit: 'km' | 'mi'
  customer: string
  assumed: Assumptions
}) {
  const { t } = useTranslation()
  const navigate = useNavigate()
  const { tell } = useSurroundings()
  const { wrong, busy, write } = useBikeWrite(bikeId)
  const usual = usualOf(care)
  const [chosen, setChosen] = useState<Treatment>(usual ?? 'dry-oil')
  const [cleaning, setCleaning] = useState<Cleaning>(
    // As the last time; stripped was once.
    () => care.events.find(({ cleaning: was }) => was !== null && was !== 'strip')?.cleaning ?? 'wipe',
  )
  const [atHome, setAtHome] = useState(false)
  const [planning, setPlanning] = useState(false)
  const [wanting, setWanting] = useState(false)
  const [back, setBack] = useState<string | null>(null)
  const writing = useRef(new Set<string>())
  const before = care.chain?.care ?? 'unknown'
  const [newest] = care.events

  const record = async (
    what: { kind: 'treated' | 'wash' | 'squeak'; care?: Treatment },
    said: string,
  ): Promise<void> => {
    // What is being written already is not written twice; anything else is, whatever is under way.
    const asked = `${what.kind} ${what.care ?? ''}`
    if (!care.chain || writing.current.has(asked)) return
    writing.current.add(asked)
    const id = v7()
    const body = {
      id,
      ...what,
      ...(what.care ? { cleaning: cleaningNeeded({ care: what.care, before, cleaning }), atHome } : {}),
      occurredAt: new Date().toISOString(),
      fittingId: care.chain.fittingId,
    }
    // Said of this treatment, and of none after it: at once, so that what is ticked while it is written stays ticked.
    if (what.care) setAtHome(false)
    const written = await write(() => ask(endpoints.recordCare, { params: { id: bikeId }, key: id, body }))
    writing.current.delete(asked)
    if (written) tell(said)
    else if (what.care) setAtHome(atHome)
  }
  const treat = (one: Treatment): void => {
    setChosen(one)
    void record({ kind: 'treated', care: one }, t('caring.written', { care: t(`care.${one}`) }))
  }
  const undo = (): void => {
    if (!newest || busy) return
    const id = v7()
    const body = { id, reason: t('caring.undoReason') }
    void write(() => ask(endpoints.withdrawCare, { params: { id: newest.id }, key: id, body }))
  }
  const dropDate = (dateId: string): void =>
    void write(() => ask(endpoints.dropEventDate, { params: { id: dateId }, key: v7() }))
  const toPot = async (): Promise<void> => {
    if (!care.chain || busy) return
    const one = {
      id: v7(),
      chainId: care.chain.id,
      readyBy: readyBy(care),
      needs: newest === undefined || cleaning === 'strip' ? ('strip' as const) : ('nothing' as const),
      recipe: 'soak-and-hang' as const,
      condition: care.next?.because === 'wash' ? ('wet' as const) : ('clean' as const),
    }
    if (await write(() => ask(endpoints.addToPot, { key: v7(), body: { chains: [one] } }))) tell(t('pot.fromCareDone'))
  }
  const byDigit = (digit: string): void => {
    const one = TREATMENTS[Number(digit) - 1]
    if (one) treat(one)
  }
  useTypedAhead(byDigit)
  useCommands('care', {
    treatBy: (digit) => byDigit(String(digit)),
    treat: usual ? () => treat(usual) : null,
    wash: () => record({ kind: 'wash' }, t('caring.washWritten')),
    squeak: () => record({ kind: 'squeak' }, t('caring.squeakWritten')),
    undo: newest ? undo : null,
    toPot: usual === 'immersion-wax' ? toPot : null,
    wanted: () => setWanting(true),
    plan: () => setPlanning(true),
    measure: () => navigate(`/bikes/${bikeId}/measure`),
    record: () => navigate(`/bikes/${bikeId}`),
    back: () => navigate(`/bikes/${bikeId}`),
  })

  if (!care.chain) return <Typography sx={{ fontSize: 22 }}>{t('caring.noChain')}</Typography>
  const steps = careSteps({
    care: chosen,
    cleaning,
    before,
    checkFirst: care.next?.checkFirst ?? false,
    pinned: care.chain.joint === 'pin',
    motor: care.motor,
    discBrake: care.discBrake,
  })
  return (
    <>
      <Beside width={430} toRead beside={<CareStepList steps={steps} />}>
        <CareDueWords
          care={care}
          unit={unit}
          assumed={assumed}
          onMeasure={() => void navigate(`/bikes/${bikeId}/measure`)}
        />
        <Stack direction="row" sx={{ gap: 2, alignItems: 'baseline', flexWrap: 'wrap', pt: 0.5 }}>
          <Typography variant="h2" sx={{ flex: 1 }}>
            {t('caring.record')}
          </Typography>
          <KeyButton of="care.plan" onClick={() => setPlanning(true)} sx={{ px: 1 }}>
            {t('caring.plan')}
          </KeyButton>
        </Stack>
        <Box
          component="ol"
          aria-label={t('caring.record')}
          sx={{
            listStyle: 'none',
            m: 0,
            p: 0,
            display: 'grid',
            gridTemplateColumns: { xs: 'minmax(0, 1fr)', sm: 'minmax(0, 1fr) minmax(0, 1fr)' },
            gap: 1,
          }}
        >
          {TREATMENTS.map((one, i) => (
            <li key={one}>
              <Button
                fullWidth
                variant={one === usual ? 'contained' : 'outlined'}
                disabled={busy}
                onClick={() => treat(one)}
                onFocus={() => setChosen(one)}
                onMouseEnter={() => setChosen(one)}
                sx={{ minHeight: 60, justifyContent: 'flex-start', gap: 1.5, textAlign: 'left' }}
              >
                <KeyCap>{String(i + 1)}</KeyCap>
                <span>
                  <Box component="span" sx={{ display: 'block', fontWeight: 700, fontSize: 18, lineHeight: 1.2 }}>
                    {t(`care.${one}`)}
                    {one === usual && `, ${t('caring.usual')}`}
                  </Box>
                  <Box component="span" sx={{ display: 'block', fontWeight: 400, fontSize: 14 }}>
                    {t('caring.lasts', {
                      km: distance(care.intervals[one].km, unit),
                      days: care.intervals[one].days,
                    })}
                  </Box>
                </span>
              </Button>
            </li>
          ))}
        </Box>
        <Stack direction="row" sx={{ gap: 1.5, alignItems: 'center', flexWrap: 'wrap' }}>
          <ToggleButtonGroup
            exclusive
            value={cleaningNeeded({ care: chosen, before, cleaning })}
            aria-label={t('caring.cleaned')}
            onChange={(_, one: Cleaning | null) => one && setCleaning(one)}
          >
            {CLEANINGS.map((one) => (
              <ToggleButton key={one} value={one} sx={{ px: 1.5 }}>
                {t(`caring.cleaning.${one}`)}
              </ToggleButton>
            ))}
          </ToggleButtonGroup>
          <FormControlLabel
            control={<Checkbox checked={atHome} onChange={(event) => setAtHome(event.target.checked)} />}
            label={t('caring.atHome')}
          />
        </Stack>
        {cleaningNeeded({ care: chosen, before, cleaning }) !== cleaning && (
          <Typography sx={{ color: ink('brass'), fontWeight: 600 }}>{t('caring.stripFirst')}</Typography>
        )}
        <Stack direction="row" sx={{ gap: 1, flexWrap: 'wrap' }}>
          <KeyButton
            of="care.wash"
            variant="outlined"
            disabled={busy}
            onClick={() => void record({ kind: 'wash' }, t('caring.washWritten'))}
          >
            {t('caring.wash')}
          </KeyButton>
          <KeyButton
            of="care.squeak"
            variant="outlined"
            disabled={busy}
            onClick={() => void record({ kind: 'squeak' }, t('caring.squeakWritten'))}
          >
            {t('caring.squeak')}
          </KeyButton>
          {usual === 'immersion-wax' && (
            <KeyButton of="care.toPot" variant="outlined" disabled={busy} onClick={() => void toPot()}>
              {t('pot.fromCare')}
            </KeyButton>
          )}
          {newest && (
            <KeyButton of="care.undo" disabled={busy} onClick={undo}>
              {t('caring.undo')}
            </KeyButton>
          )}
        </Stack>
        <Typography variant="body2" color="textSecondary">
          {t('caring.recordNote')} {t('caring.caution')}
        </Typography>
        <Refused>{wrong?.sentence}</Refused>
        <WantedDays care={care} unit={unit} onAdd={() => setWanting(true)} onDrop={dropDate} busy={busy} />
        <CareHistory bikeId={bikeId} events={care.events} onBack={setBack} />
      </Beside>
      {planning && (
        <CarePlanDialog bikeId={bikeId} care={care} customer={customer} onClose={() => setPlanning(false)} />
      )}
      {wanting && (
        <WantedDialog
          bikeId={bikeId}
          onClose={() => setWanting(false)}
          onAdded={() => {
            setWanting(false)
            tell(t('caring.wanted.added'))
          }}
        />
      )}
      {back !== null && (
        <ReasonDialog
          title={t('caring.backTitle')}
          go={t('caring.back')}
          onClose={() => setBack(null)}
          onReason={async (reason) => {
            const id = v7()
            await ask(endpoints.withdrawCare, { params: { id: back }, key: id, body: { id, reason } })
            await write(() => Promise.resolve(true))
          }}
        />
      )}
    </>
  )
}

/** When it is due and why, what is used up of its interval, and whether it is measured before. */
function CareDueWords({
  care,
  unit,
  assumed,
  onMeasure,
}: {
  care: BikeCare
  unit: 'km' | 'mi'
  assumed: Assumptions
  onMeasure: () => void
}) {
  const { t } = useTranslation()
  const words = useCareWords()
  const { next, chain } = care
  if (!next) return <Typography sx={{ fontSize: 22 }}>{t('caring.none')}</Typography>
  const { interval, usedKm, usedDays, checkFirst } = next
  return (
    <Box component="section" aria-label={t('caring.title')}>
      <Typography
        component="p"
        sx={{
          fontSize: { xs: 24, md: 30 },
          fontWeight: 700,
          lineHeight: 1.15,
          color: isDue(next) ? ink('brass') : 'inherit',
        }}
      >
        {words.due(next)}
      </Typography>
      <Typography sx={{ fontSize: 18 }}>
        {words.left(next, unit)}{' '}
        {interval.own ? t('caring.own') : t('caring.ofShop', { care: t(`care.${chain?.care ?? 'unknown'}`) })}{' '}
        <Why explanations={[careExplained(next, assumed.care)]} label={words.due(next)} lead={words.due(next)} />
      </Typography>
      {checkFirst && (
        <Stack
          direction="row"
          sx={{ gap: 2, alignItems: 'center', borderLeft: `6px solid ${ink('brass')}`, pl: 1.5, my: 1 }}
        >
          <Typography sx={{ fontWeight: 600, flex: 1 }}>{t('caring.checkFirst')}</Typography>
          <KeyButton of="care.measure" variant="outlined" onClick={onMeasure}>
            {t('caring.measure')}
          </KeyButton>
        </Stack>
      )}
      <Box sx={{ display: 'grid', gridTemplateColumns: { xs: '1fr', sm: '1fr 1fr' }, gap: 2, mt: 1 }}>
        <CareScale label={t('caring.scaleKm')} used={usedKm} all={interval.km} unit="km" />
        {usedDays !== null && <CareScale label={t('caring.scaleDays')} used={usedDays} all={interval.days} unit="d" />}
      </Box>
    </Box>
  )
}
