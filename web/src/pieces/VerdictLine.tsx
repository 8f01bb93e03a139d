import { Stack, Typography } from '@mui/material'
import { Trans, useTranslation } from 'react-i18next'
import { aheadOf, type ChainVerdict, type School, type SprocketAdvice, type VerdictWord } from '@pelrin/core'
import type { BikeSummary } from '@pelrin/contract'
import { day, number, percent, today } from '../messages/format.ts'
import { ink } from '../theme/theme.ts'
import { intervalText } from './intervalText.ts'
import { Plate } from './Plate.tsx'
import { useChance } from './useChance.ts'
import { lookToday, VERDICT_LOOK } from './verdictLook.ts'

/** The verdict, large: its plate, its word, and beside "change" what else is suspect. */
export function VerdictHeading({
  word,
  advice,
  height = 38,
}: {
  word: VerdictWord
  advice: SprocketAdvice | null
  height?: number
}) {
  const { t } = useTranslation()
  const { plate, colour } = VERDICT_LOOK[word]
  return (
    <Stack direction="row" sx={{ alignItems: 'center', gap: 2, flexWrap: 'wrap' }}>
      <Plate shape={plate} colour={colour} height={height} />
      <Typography
        component="p"
        data-testid="verdict"
        sx={{ fontSize: height * 1.06, fontWeight: 700, lineHeight: 1.1, color: colour }}
      >
        {t(`word.${word}`)}
      </Typography>
      {advice && (
        <Stack direction="row" sx={{ alignItems: 'center', gap: 1 }}>
          <Plate shape="toothed" colour={ink('madder')} height={height * 0.55} />
          <Typography sx={{ fontWeight: 600, color: ink('madder') }}>{t(`advice.${advice}`)}</Typography>
        </Stack>
      )}
    </Stack>
  )
}

/** How a bike stands today, large: an overdue look is said beside it. */
export function StandingHeading({ summary, height }: { summary: BikeSummary; height: number }) {
  const { t } = useTranslation()
  const { overdue } = lookToday(summary, today())
  const { word } = summary.standing
  return (
    <Stack direction="row" sx={{ alignItems: 'center', gap: 2, flexWrap: 'wrap' }}>
      <VerdictHeading word={word} advice={word === 'change' ? summary.advice : null} height={height} />
      {overdue && (
        <Typography
          sx={{
            fontWeight: 700,
            color: ink('brass'),
            border: `1.5px dashed ${ink('brass')}`,
            px: 1,
            borderRadius: 0.5,
          }}
        >
          {t('overdue')}
        </Typography>
      )}
    </Stack>
  )
}

/** Why a bike stands as it does, in one sentence: what was measured and when, and what has changed since. */
export function StandingSentence({
  summary,
  verdict,
  school,
}: {
  summary: Pick<BikeSummary, 'standing' | 'measuredAt' | 'checkOn'>
  verdict: ChainVerdict
  school: School
}) {
  const { t } = useTranslation()
  const chance = useChance()
  const { standing, measuredAt, checkOn } = summary
  const { worst } = verdict
  if (standing.word !== 'measure-it' || !worst || measuredAt === null)
    return (
      <>
        <VerdictSentence verdict={verdict} school={school} />
        {standing.word === 'measure-it' && standing.chance !== null && (
          <> {t('standing.byForecast', { chance: chance(standing.chance) })}</>
        )}
      </>
    )
  return (
    <>
      <Trans
        i18nKey={worst.value === undefined ? 'standing.thenInterval' : 'standing.then'}
        values={{
          value: worst.value === undefined ? intervalText(worst, t) : percent(worst.value),
          date: day(measuredAt),
          limit: percent(verdict.limit),
          school: t(`school.${school}`),
        }}
        components={{ b: <b /> }}
      />
      {standing.because !== 'chance' && checkOn !== null && <> {t('standing.passed', { date: day(checkOn) })}</>}
      {standing.chance !== null && <> {t('standing.byForecast', { chance: chance(standing.chance) })}</>}
    </>
  )
}

/** The verdict in one sentence: the governing spot, the limit and whose, the chance when it was measured. */
export function VerdictSentence({ verdict, school }: { verdict: ChainVerdict; school: School }) {
  const { t } = useTranslation()
  const chance = useChance()
  const ahead = aheadOf(verdict)
  return (
    <>
      <MeasuredSentence verdict={verdict} school={school} />
      {ahead && <> {t('verdict.ahead', { km: number(ahead.km, 0), chance: chance(ahead.chance) })}</>}
    </>
  )
}

function MeasuredSentence({ verdict, school }: { verdict: ChainVerdict; school: School }) {
  const { t } = useTranslation()
  const chance = useChance()
  const { worst, probabilityOver, limit } = verdict
  const common = { limit: percent(limit), school: t(`school.${school}`) }
  const b = <b />
  if (!worst || probabilityOver === null) return <Trans i18nKey="verdict.nothing" values={common} components={{ b }} />
  const values = { ...common, chance: chance(probabilityOver), count: verdict.spotsMeasured }
  if (worst.value === undefined)
    return (
      <Trans i18nKey="verdict.interval" values={{ ...values, interval: intervalText(worst, t) }} components={{ b }} />
    )
  return (
    <Trans
      i18nKey={verdict.spotsMeasured > 1 ? 'verdict.sentenceMany' : 'verdict.sentence'}
      values={{ ...values, value: percent(worst.value), u: percent(worst.u) }}
      components={{ b }}
    />
  )
}
