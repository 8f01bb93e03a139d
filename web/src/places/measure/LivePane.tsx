import { Box, Stack, Typography } from '@mui/material'
import { growthSinceNew, type Assumptions, type ChainLife, type ForecastPicture, hangsWholeChain } from '@pelrin/core'
import { useTranslation } from 'react-i18next'
import type { BikeRecord, Instrument } from '@pelrin/contract'
import { percent, unitOf } from '../../messages/format.ts'
import { typedNumber } from '../../messages/typedNumber.ts'
import { ForecastChart } from '../../pieces/ForecastChart.tsx'
import { ForecastWords } from '../../pieces/ForecastWords.tsx'
import { elongationText } from '../../pieces/intervalText.ts'
import { KeyCap } from '../../pieces/KeyCap.tsx'
import { SchoolWords } from '../../pieces/SchoolWords.tsx'
import { SettleAndFlags } from '../../pieces/Settle.tsx'
import { VerdictHeading, VerdictSentence } from '../../pieces/VerdictLine.tsx'
import { TheirsAndOurs } from '../../pieces/TheirsAndOurs.tsx'
import { VERDICT_LOOK } from '../../pieces/verdictLook.ts'
import { WearRule } from '../../pieces/WearRule.tsx'
import { Why, WhyDialog } from '../../pieces/Why.tsx'
import type { Draft, DraftSpot } from './draft.ts'
import { InstrumentDrawing } from './drawings/InstrumentDrawing.tsx'
import type { Live, SpotReading } from './evaluate.ts'

/** What is typed, drawn and judged as it is typed. */
export function LivePane({
  record,
  instrument,
  live,
  anything,
  spots,
  draft,
  drawn,
  assumed,
  picture,
  life,
  whyOpen,
  onWhy,
}: {
  record: BikeRecord
  instrument: Instrument
  live: Live | null
  /** Whether something was read that can be judged. */
  anything: boolean
  spots: readonly SpotReading[]
  draft: Draft
  drawn: { spot: DraftSpot; reading: SpotReading }
  assumed: Assumptions
  /** The forecast with what is typed taken in; null while there is none. */
  picture: ForecastPicture | null
  /** The chain's life that forecast was made from. */
  life: ChainLife | undefined
  whyOpen: boolean
  onWhy: (open: boolean) => void
}) {
  const { t } = useTranslation()
  if (!live) return null
  const { verdict, marks } = live
  const { colour } = VERDICT_LOOK[verdict.word]
  const rule = record.verdictInput?.rule
  const school = rule?.school ?? 'by-speeds'
  const ready = spots.flatMap((one) => (one.state === 'ready' ? [one] : []))
  return (
    <Stack component="section" aria-label={t('measure.live')} sx={{ p: 2.25, pt: 1.25, gap: 1, minWidth: 0 }}>
      <Stack direction="row" sx={{ alignItems: 'center', gap: 2, minHeight: 46 }}>
        {anything ? (
          <VerdictHeading word={verdict.word} advice={verdict.advice} height={36} />
        ) : (
          <Typography sx={{ fontSize: 'size.head', fontWeight: 600, color: 'text.secondary' }}>
            {t(`measure.waiting.${instrument.kind}`)}
          </Typography>
        )}
      </Stack>
      <Box sx={{ maxWidth: 620 }}>
        <WearRule
          size="large"
          marks={anything ? marks : []}
          limit={verdict.limit}
          watch={verdict.watch}
          colour={colour}
        />
      </Box>
      <Box sx={{ minHeight: 74 }} aria-live="polite" data-testid="live">
        {anything && (
          <>
            <Typography>
              <VerdictSentence verdict={verdict} school={school} />{' '}
              <Why explanations={verdict.steps} label={t(`word.${verdict.word}`)} /> <KeyCap>Alt W</KeyCap>
            </Typography>
            <SettleAndFlags verdict={verdict} present />
            {draft.source === 'customer' && drawn.reading.state === 'ready' && picture && (
              <TheirsAndOurs
                theirs={elongationText(drawn.reading.observed, t)}
                band={picture.band}
                s={picture.forecast.sNow}
              />
            )}
            <SinceNew record={record} instrument={instrument} reading={drawn.reading} draft={draft} assumed={assumed} />
          </>
        )}
      </Box>
      <Box sx={{ maxWidth: 700 }}>
        <InstrumentDrawing
          instrument={instrument}
          draft={draft}
          spot={drawn.spot}
          reading={drawn.reading}
          limit={verdict.limit}
          colour={colour}
          assumed={assumed}
        />
      </Box>
      {anything && <SchoolWords verdict={verdict} />}
      {anything && picture && life && (
        <Box sx={{ mt: 1 }}>
          <ForecastWords
            forecast={picture.forecast}
            life={life}
            unit={unitOf(record)}
            now={life.at}
            byNow={picture.forecast.overNow}
            checkOn={null}
            picture={picture}
            assumed={assumed}
          />
          <Box sx={{ mt: 1.5 }}>
            <ForecastChart
              picture={picture}
              nowS={picture.forecast.sNow}
              usualFactor={life.usualFactor}
              unit={unitOf(record)}
              height={150}
              overlays={false}
            />
          </Box>
        </Box>
      )}
      <WhyDialog
        open={whyOpen}
        onClose={() => onWhy(false)}
        explanations={[...ready.flatMap(({ observed }) => observed.explanations), ...verdict.steps]}
        verdict={verdict}
        school={school}
        marks={anything ? marks : []}
        note={t('why.rules', { school: t(`school.${school}`), version: rule?.version ?? 1 })}
      />
    </Stack>
  )
}

/** A whole chain beside its own length when new. */
function SinceNew({
  record,
  instrument,
  reading,
  draft,
  assumed,
}: {
  record: BikeRecord
  instrument: Instrument
  reading: SpotReading
  draft: Draft
  assumed: Assumptions
}) {
  const { t } = useTranslation()
  if (!hangsWholeChain(instrument.kind) || reading.state !== 'ready') return null
  const { lengthMm = 0, pitches = 1 } = reading.observed
  const whenNew = record.chain?.whenNew
  if (!whenNew) return <Typography variant="body2">{t('measure.newLengthMissing')}</Typography>
  const chainCelsius = typedNumber(draft.chainCelsius)
  const ruleCelsius = typedNumber(draft.ruleCelsius)
  const { growth, u, unlike, explanation } = growthSinceNew({
    now: {
      lengthMm,
      pitches,
      preloadKg: typedNumber(draft.preloadKg) ?? assumed.measuring.preloadKg,
      ...(chainCelsius === undefined ? {} : { chainCelsius }),
      ...(ruleCelsius === undefined ? {} : { ruleCelsius }),
    },
    whenNew,
    material: instrument.material ?? 'steel',
    uMm: instrument.uMm ?? assumed.measuring.fullLengthUMm,
  })
  return (
    <Typography variant="body2">
      {t('measure.sinceNew', { growth: percent(growth), u: percent(u) })} <Why explanations={[explanation]} />
      {unlike.map((one) => ` ${t(`measure.unlike.${one}`)}`)}
    </Typography>
  )
}
