import { Box, Stack, Typography } from '@mui/material'
import { useTranslation } from 'react-i18next'
import type { BikeRecord, Visit } from '@pelrin/contract'
import { ago, clock } from '../../messages/format.ts'
import { BikeLine } from '../../pieces/BikeLine.tsx'
import { DecisionStanding } from '../../pieces/DecisionStanding.tsx'
import { KeyButton } from '../../pieces/KeyButton.tsx'
import { SettleAndFlags } from '../../pieces/Settle.tsx'
import { useChainForecast } from '../../pieces/useChainForecast.ts'
import { StandingHeading, StandingSentence } from '../../pieces/VerdictLine.tsx'
import { useStandingAnswer } from '../../pieces/useStandingAnswer.ts'
import { VERDICT_LOOK } from '../../pieces/verdictLook.ts'
import { ChainWear } from '../../pieces/ChainWear.tsx'
import { WearRule } from '../../pieces/WearRule.tsx'
import { WhyDialog } from '../../pieces/Why.tsx'

/** The bike on the stand, large enough to read at arm's length. */
export function OnStand({
  record,
  visit,
  whyOpen,
  onWhy,
  onMeasure,
  onRecord,
  onPut,
  onDone,
}: {
  record: BikeRecord
  visit: Visit | undefined
  whyOpen: boolean
  onWhy: (open: boolean) => void
  onMeasure: () => void
  onRecord: () => void
  onPut: () => void
  onDone: (() => void) | undefined
}) {
  const { t } = useTranslation()
  const { summary, verdict } = record
  const forecast = useChainForecast(record)
  const answer = useStandingAnswer()
  const school = record.verdictInput?.rule.school ?? 'by-speeds'
  return (
    <Stack
      component="section"
      aria-label={t('keys.onStand')}
      sx={{ px: 2.75, pt: 1.75, pb: 1, gap: 1.25, minWidth: 0, overflow: { md: 'auto' } }}
    >
      <Box>
        <Typography variant="h1">{record.customer.name}</Typography>
        <Typography color="textSecondary">
          <BikeLine bike={summary} teeth />, {t('find.tag', { tag: summary.tag })}
          {visit?.here && visit.onStandSince && `, ${t('stand.since', { time: clock(visit.onStandSince) })}`}
        </Typography>
      </Box>
      <StandingHeading summary={summary} height={38} />
      <WearRule
        size="large"
        marks={summary.marks}
        limit={summary.limit}
        {...(verdict ? { watch: verdict.outcome.watch } : {})}
        colour={VERDICT_LOOK[summary.standing.word].colour}
      />
      {verdict && (
        <Box>
          <Typography>
            <StandingSentence summary={summary} verdict={verdict.outcome} school={school} />
            {summary.measuredAt && (
              <Box component="span" sx={{ color: 'text.secondary' }}>
                {' '}
                {t('stand.measuredAgo', { ago: ago(summary.measuredAt) })}
              </Box>
            )}{' '}
            <KeyButton
              of="stand.why"
              size="small"
              onClick={() => onWhy(true)}
              sx={{ minHeight: 32, px: 0.75, verticalAlign: 'baseline' }}
            >
              {t('stand.why')}
            </KeyButton>
          </Typography>
          <SettleAndFlags verdict={verdict.outcome} present={summary.standing.because === 'verdict'} />
          <DecisionStanding record={record} />
        </Box>
      )}
      <Stack
        direction="row"
        sx={{
          gap: 1.25,
          flexWrap: 'wrap',
          '& > button': { flex: '1 1 170px', minHeight: 56, gap: 1.5, lineHeight: 1.2 },
        }}
      >
        <KeyButton of="stand.measure" variant="contained" onClick={onMeasure}>
          {t(summary.measuredAt === null ? 'stand.measure' : 'stand.again')}
        </KeyButton>
        <KeyButton of="stand.record" variant="outlined" onClick={onRecord}>
          {t('stand.record')}
        </KeyButton>
        {visit?.here ? (
          onDone && (
            <KeyButton of="stand.done" variant="outlined" onClick={onDone}>
              {t('stand.done')}
            </KeyButton>
          )
        ) : (
          <KeyButton of="stand.put" variant="outlined" onClick={onPut}>
            {t('stand.put')}
          </KeyButton>
        )}
      </Stack>
      <Box sx={{ mt: 0.75 }}>
        <ChainWear record={record} forecast={forecast} height={150} overlays={false} />
      </Box>
      {verdict && (
        <WhyDialog
          open={whyOpen}
          onClose={() => onWhy(false)}
          explanations={verdict.outcome.steps}
          answer={answer(summary)}
          verdict={verdict.outcome}
          school={school}
          marks={summary.marks}
          note={t('why.rules', { school: t(`school.${school}`), version: verdict.ruleVersion })}
        />
      )}
    </Stack>
  )
}
