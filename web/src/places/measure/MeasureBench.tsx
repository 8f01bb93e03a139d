import { Alert, Box, Button, Stack, TextField, ToggleButton, ToggleButtonGroup, Typography } from '@mui/material'
import { useQueryClient } from '@tanstack/react-query'
import { createRef, useCallback, useEffect, useMemo, useRef, useState, type RefObject } from 'react'
import { flushSync } from 'react-dom'
import { useHotkeys } from 'react-hotkeys-hook'
import { useTranslation } from 'react-i18next'
import { useNavigate } from 'react-router'
import type { BikeRecord, Instrument, Problem, Reading } from '@pelrin/contract'
import { keys } from '../../api/queries.ts'
import { useSurroundings } from '../../app/Shell.tsx'
import { useTypedAhead } from '../../keys/typing.tsx'
import { clock } from '../../messages/format.ts'
import { BikeLine } from '../../pieces/BikeLine.tsx'
import { KeyCap } from '../../pieces/KeyCap.tsx'
import { RunRule } from '../../pieces/RunRule.tsx'
import { SchoolWords } from '../../pieces/SchoolWords.tsx'
import { SettleAndFlags } from '../../pieces/Settle.tsx'
import { VerdictHeading, VerdictSentence } from '../../pieces/VerdictLine.tsx'
import { VERDICT_LOOK } from '../../pieces/verdictLook.ts'
import { WearRule } from '../../pieces/WearRule.tsx'
import { Why, WhyDialog } from '../../pieces/Why.tsx'
import { emptySpot, useDraft, type DraftSpot } from './draft.ts'
import { liveVerdict, readOdometer, readSpot, type SpotReading } from './evaluate.ts'
import { OdometerField } from './OdometerField.tsx'
import { saveDraft } from './save.ts'
import { SpotField } from './SpotField.tsx'

const LAST_RULE = 'pelrin-last-rule'
const MOST_SPOTS = 8

export function MeasureBench({
  record,
  rules,
  corrects,
}: {
  record: BikeRecord
  rules: readonly Instrument[]
  corrects: Reading | null
}) {
  const { t } = useTranslation()
  const navigate = useNavigate()
  const client = useQueryClient()
  const { session, tell } = useSurroundings()
  const bikeId = record.summary.id
  const { draft, restored, change, clear } = useDraft(bikeId, corrects)
  const [saving, setSaving] = useState(false)
  const [refusal, setRefusal] = useState<Problem | null>(null)
  const [whyOpen, setWhyOpen] = useState(false)
  const [focused, setFocused] = useState(0)
  const [openedAt] = useState(() => Date.now())
  const odometerInput = useRef<HTMLInputElement>(null)
  const reasonInput = useRef<HTMLInputElement>(null)
  const spotInputs = useRef<RefObject<HTMLInputElement | null>[]>([])
  const inputOf = (i: number): RefObject<HTMLInputElement | null> => (spotInputs.current[i] ??= createRef())

  const instrument =
    rules.find((rule) => rule.id === (draft.instrumentId ?? localStorage.getItem(LAST_RULE))) ?? rules[0]
  const spots = useMemo(() => draft.spots.map((spot) => readSpot(spot, instrument)), [draft.spots, instrument])
  const unit = record.lastOdometer?.unit ?? session.shop.distanceUnit
  // A correction is held against the value before the one it takes the place of, which the server knows; here
  // only a new reading is asked about.
  const odometer = readOdometer(draft.odometer.typed, unit, corrects ? null : (record.lastOdometer?.km ?? null))
  const live = liveVerdict(record, draft, spots, instrument, odometer, openedAt, corrects?.id ?? null)
  const verdict = live?.verdict ?? null
  const fieldError = (path: string): string | undefined => refusal?.fields?.find((field) => field.path === path)?.code

  const setSpot = (i: number, spot: DraftSpot): void => {
    setRefusal(null)
    change({ spots: draft.spots.map((old, j) => (i === j ? spot : old)) })
  }

  useEffect(() => {
    spotInputs.current[0]?.current?.focus()
  }, [])
  useTypedAhead((text) =>
    setSpot(0, { ...(draft.spots[0] ?? emptySpot()), typed: (draft.spots[0]?.typed ?? '') + text }),
  )

  const leave = useCallback(() => {
    // At once: the next key is already meant for the place it leads to.
    void navigate(corrects ? `/bikes/${bikeId}` : `/?bike=${bikeId}`, { flushSync: true })
  }, [navigate, corrects, bikeId])
  useHotkeys('escape', () => !whyOpen && leave(), { enableOnFormTags: true })
  useHotkeys('alt+w', () => setWhyOpen(true), { enableOnFormTags: true, preventDefault: true })

  const goOnFrom = (i: number, reading: SpotReading): void => {
    if (reading.state === 'ready' && i < MOST_SPOTS - 1) {
      // Drawn at once, so that the next key already lands in the new field.
      if (i === draft.spots.length - 1) flushSync(() => change({ spots: [...draft.spots, emptySpot()] }))
      inputOf(i + 1).current?.focus()
    } else if (reading.state === 'ready' || (reading.state === 'empty' && i > 0)) odometerInput.current?.focus()
  }

  /** Leads to the first thing that stands in the way; true when nothing does. */
  const complete = (odometerNow = draft.odometer): boolean => {
    const notReady = spots.findIndex((spot, i) => spot.state !== 'ready' && !(spot.state === 'empty' && i > 0))
    if (notReady >= 0) {
      inputOf(notReady).current?.focus()
      return false
    }
    if (odometer.state === 'problem') {
      odometerInput.current?.focus()
      return false
    }
    if (odometer.state === 'ready' && odometer.lower && odometerNow.lower === null) {
      document.querySelector<HTMLElement>('[data-answer="1"]')?.focus()
      return false
    }
    if (corrects && draft.reason.trim() === '') {
      reasonInput.current?.focus()
      return false
    }
    return true
  }

  const save = async (odometerNow = draft.odometer): Promise<void> => {
    if (saving || !instrument || !complete(odometerNow)) return
    setSaving(true)
    localStorage.setItem(LAST_RULE, instrument.id)
    const name = `${record.customer.name}, ${record.summary.label}`
    try {
      const saved = await saveDraft({
        draft: { ...draft, odometer: odometerNow },
        spots,
        instrumentId: instrument.id,
        unit,
        bikeId,
        corrects: corrects?.id ?? null,
        personId: session.person.id,
        title: t('outbox.reading', { bike: name, time: clock(new Date().toISOString()) }),
      })
      if (saved.end === 'refused') {
        setRefusal(saved.problem)
        return
      }
      clear()
      leave()
      if (saved.end === 'saved') {
        client.setQueryData(keys.bike(bikeId), saved.record)
        void client.invalidateQueries({ queryKey: keys.lineUp })
        void client.invalidateQueries({ queryKey: keys.rack })
        tell(t('measure.savedToast', { word: t(`word.${saved.record.summary.word}`).toLowerCase() }))
      } else tell(t('measure.kept'))
    } finally {
      setSaving(false)
    }
  }

  const shown = spots[focused]?.state === 'ready' ? spots[focused] : spots.findLast((spot) => spot.state === 'ready')
  const drawn = shown?.state === 'ready' ? shown : null
  const look = verdict ? VERDICT_LOOK[verdict.word] : null
  const readySpots = spots.flatMap((spot) => (spot.state === 'ready' ? [spot] : []))
  return (
    <Box sx={{ display: 'grid', gridTemplateColumns: { xs: '1fr', md: '430px minmax(0, 1fr)' }, minHeight: '100%' }}>
      <Stack sx={{ p: 2.5, pt: 2, gap: 1.75, borderRight: { md: 1 }, borderColor: { md: 'divider' } }}>
        <Box>
          <Typography variant="h2" component="h1">
            {corrects ? t('bike.correctTitle') : record.customer.name}
          </Typography>
          <Typography color="textSecondary">
            {corrects && `${record.customer.name}, `}
            <BikeLine bike={record.summary} teeth={!corrects} />, {t('find.tag', { tag: record.summary.tag })}
          </Typography>
        </Box>
        {restored && (
          <Alert
            severity="info"
            icon={false}
            sx={{ py: 0, alignItems: 'center' }}
            action={
              <Button size="small" onClick={clear} sx={{ minHeight: 40 }}>
                {t('measure.discard')}
              </Button>
            }
          >
            {t('measure.restored')}
          </Alert>
        )}
        <ToggleButtonGroup
          exclusive
          fullWidth
          color="primary"
          value={instrument?.id}
          aria-label={t('measure.instrument')}
          onChange={(_, id: string | null) => id !== null && change({ instrumentId: id })}
        >
          {rules.map((rule) => (
            <ToggleButton key={rule.id} value={rule.id} sx={{ minHeight: 48, fontSize: 15.5, lineHeight: 1.15 }}>
              {rule.name}
              {rule.checkLapsed && ` (${t('instrument.lapsed')})`}
            </ToggleButton>
          ))}
        </ToggleButtonGroup>
        <Stack sx={{ gap: 1.5 }}>
          {draft.spots.map((spot, i) => (
            <SpotField
              key={spot.id}
              index={i}
              spot={spot}
              reading={spots[i] ?? { state: 'empty' }}
              error={fieldError(`spots.${i}.typed`) ?? fieldError(`spots.${i}.pitches`)}
              inputRef={inputOf(i)}
              onChange={(changed) => setSpot(i, changed)}
              onEnter={(reading) => goOnFrom(i, reading)}
              onFocus={() => setFocused(i)}
              onRemove={
                draft.spots.length > 1 ? () => change({ spots: draft.spots.filter((_, j) => j !== i) }) : undefined
              }
            />
          ))}
        </Stack>
        <OdometerField
          odometer={draft.odometer}
          reading={odometer}
          last={corrects ? null : record.lastOdometer}
          unit={unit}
          error={fieldError('odometer.typed')}
          inputRef={odometerInput}
          onChange={(changed) => {
            setRefusal(null)
            change({ odometer: changed })
          }}
          onEnter={() => (corrects ? (complete(), reasonInput.current?.focus()) : void save())}
          onAnswer={(answered) => {
            change({ odometer: answered })
            void save(answered)
          }}
        />
        {corrects && (
          <TextField
            inputRef={reasonInput}
            label={t('bike.reason')}
            value={draft.reason}
            onChange={(event) => change({ reason: event.target.value })}
            helperText={fieldError('reason') ? t(`problems.${fieldError('reason')}`) : t('bike.correctNote')}
            slotProps={{ inputLabel: { shrink: true }, htmlInput: { maxLength: 200 } }}
            onKeyDown={(event) => {
              if (event.key === 'Enter') {
                event.preventDefault()
                void save()
              }
            }}
          />
        )}
        {refusal &&
          !refusal.fields?.some((field) =>
            /^(spots\.\d+\.(typed|pitches)|odometer\.typed|reason)$/.test(field.path),
          ) && (
            <Alert severity="error" icon={false}>
              {refusal.fields?.map((field) => field.detail).join(' ') ??
                t(`problems.${refusal.code}`, { requestId: refusal.requestId })}
            </Alert>
          )}
        <Button variant="contained" size="large" disabled={saving} onClick={() => void save()} sx={{ minHeight: 56 }}>
          {saving ? t('measure.saving') : t('measure.save')}
        </Button>
        <Typography variant="body2" color="textSecondary">
          {t('measure.traps')}
        </Typography>
      </Stack>

      <Stack component="section" aria-label={t('measure.live')} sx={{ p: 2.5, pt: 1.75, gap: 1.25, minWidth: 0 }}>
        {verdict && look && (
          <>
            <Stack direction="row" sx={{ alignItems: 'center', gap: 2, minHeight: 46 }}>
              {readySpots.length > 0 ? (
                <VerdictHeading word={verdict.word} advice={verdict.advice} height={36} />
              ) : (
                <Typography sx={{ fontSize: 26, fontWeight: 600, color: 'text.secondary' }}>
                  {t('measure.waiting')}
                </Typography>
              )}
            </Stack>
            <Box sx={{ maxWidth: 660 }}>
              <WearRule
                size="large"
                marks={readySpots.length > 0 ? (live?.marks ?? []) : []}
                limit={verdict.limit}
                watch={verdict.watch}
                colour={look.colour}
              />
            </Box>
            <Box sx={{ minHeight: 74 }} aria-live="polite" data-testid="live">
              {readySpots.length > 0 && (
                <>
                  <Typography>
                    <VerdictSentence verdict={verdict} school={record.verdictInput?.rule.school ?? 'by-speeds'} />{' '}
                    <Why explanations={verdict.steps} label={t(`word.${verdict.word}`)} /> <KeyCap>Alt W</KeyCap>
                  </Typography>
                  <SettleAndFlags verdict={verdict} />
                </>
              )}
            </Box>
            <RunRule
              lengthMm={drawn?.length.lengthMm ?? null}
              pitches={drawn?.pitches ?? null}
              unit={drawn?.length.unit ?? 'mm'}
              denominator={drawn?.length.denominator ?? 32}
              limit={verdict.limit}
              colour={look.colour}
            />
            {readySpots.length > 0 && <SchoolWords verdict={verdict} />}
            <WhyDialog
              open={whyOpen}
              onClose={() => setWhyOpen(false)}
              explanations={[
                ...readySpots.flatMap(({ observation }) => [observation.explanation, observation.uExplanation]),
                ...verdict.steps,
              ]}
              note={t('why.rules', {
                school: t(`school.${record.verdictInput?.rule.school ?? 'by-speeds'}`),
                version: record.verdictInput?.rule.version ?? 1,
              })}
            />
          </>
        )}
      </Stack>
    </Box>
  )
}
