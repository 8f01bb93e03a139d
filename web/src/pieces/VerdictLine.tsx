import { Stack, Typography } from '@mui/material'
import { Trans, useTranslation } from 'react-i18next'
import type { ChainVerdict, SprocketAdvice, VerdictWord } from '@pelrin/core'
import type { BikeSummary } from '@pelrin/contract'
import { percent, today } from '../messages/format.ts'
import { ink } from '../theme/theme.ts'
import { intervalText } from './intervalText.ts'
import { Plate } from './Plate.tsx'
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

/** The verdict of a bike as it stands today: an overdue look is said beside it. */
export function VerdictToday({ summary, height }: { summary: BikeSummary; height: number }) {
  const { t } = useTranslation()
  const { overdue } = lookToday(summary.word, summary.checkOn, today())
  return (
    <Stack direction="row" sx={{ alignItems: 'center', gap: 2, flexWrap: 'wrap' }}>
      <VerdictHeading word={summary.word} advice={summary.advice} height={height} />
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

/** A chance as a mechanic says it. Never 0 or 100 in 100: a reading is never that sure. */
export function useChance(): (probability: number) => string {
  const { t } = useTranslation()
  return (probability) => {
    const n = Math.round(probability * 100)
    if (n < 1) return t('verdict.chanceLow')
    if (n > 99) return t('verdict.chanceHigh')
    return t('verdict.chance', { n })
  }
}

/** The verdict in one sentence: the raw worst spot, the limit and whose, the chance. */
export function VerdictSentence({ verdict, school }: { verdict: ChainVerdict; school: string }) {
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
