import { Box, Link, Stack, Typography } from '@mui/material'
import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import { Link as RouterLink, useNavigate, useParams } from 'react-router'
import { assumptionsWith } from '@pelrin/core'
import { useBike } from '../../api/queries.ts'
import { day, unitOf } from '../../messages/format.ts'
import { ink } from '../../theme/theme.ts'
import { BikeWays, useBikeWays } from '../../pieces/BikeWays.tsx'
import { BikeLine } from '../../pieces/BikeLine.tsx'
import { KeyButton } from '../../pieces/KeyButton.tsx'
import { Cap } from '../../pieces/Cap.tsx'
import { SettleAndFlags } from '../../pieces/Settle.tsx'
import { Failure, Loading } from '../../pieces/States.tsx'
import { useChainForecast } from '../../pieces/useChainForecast.ts'
import { StandingHeading, StandingSentence } from '../../pieces/VerdictLine.tsx'
import { VERDICT_LOOK } from '../../pieces/verdictLook.ts'
import { ChainWear } from '../../pieces/ChainWear.tsx'
import { ForecastWords } from '../../pieces/ForecastWords.tsx'
import { WearRule } from '../../pieces/WearRule.tsx'
import { useStandingAnswer } from '../../pieces/useStandingAnswer.ts'
import { WhyDialog } from '../../pieces/Why.tsx'
import { useTitle } from '../../pieces/useTitle.ts'
import { AtOdds } from './AtOdds.tsx'
import { BikePicture } from './BikePicture.tsx'
import { TwinsOfBike } from '../twins/TwinsOfBike.tsx'
import { BikeFacts } from './BikeFacts.tsx'
import { DecideDialog, Decisions } from './Decisions.tsx'
import { WaitingCosts } from './WaitingCosts.tsx'
import { canCorrect, Timeline } from './Timeline.tsx'
import { useCommands } from '../../keys/useCommands.ts'

/** One bike's whole record. */
export function BikePlace() {
  const { t } = useTranslation()
  const answer = useStandingAnswer()
  const navigate = useNavigate()
  const { id = '' } = useParams()
  const bike = useBike(id)
  const record = bike.data
  const forecast = useChainForecast(record, true)
  const [whyOpen, setWhyOpen] = useState(false)
  const [deciding, setDeciding] = useState(false)
  const [openedAt] = useState(() => Date.now())
  const newest = record?.readings.find((reading) => canCorrect(reading, record))
  const measure = (): unknown => navigate(`/bikes/${id}/measure`)
  const correct = newest ? () => navigate(`/bikes/${id}/measure?correct=${newest.id}`) : null
  useCommands('bike', {
    measure,
    correct,
    why: () => setWhyOpen(true),
    decide: () => setDeciding(true),
    ...useBikeWays(id),
    back: () => navigate(`/?bike=${id}`),
  })
  useTitle(record ? `${record.customer.name}, ${record.summary.label}` : t('place.bike'))

  if (bike.isPending) return <Loading />
  if (!record) return <Failure error={bike.error} again={() => void bike.refetch()} />
  const { summary, verdict } = record
  const school = record.verdictInput?.rule.school ?? 'by-speeds'
  return (
    <Box
      sx={{ display: 'grid', gridTemplateColumns: { xs: '1fr', md: 'minmax(0, 1fr) 400px' }, height: { md: '100%' } }}
    >
      <Stack sx={{ px: 2.75, pt: 1.75, pb: 2, gap: 1.5, minWidth: 0, overflow: { md: 'auto' } }}>
        <Stack
          direction="row"
          sx={{
            justifyContent: 'space-between',
            gap: 2,
            alignItems: 'flex-start',
            flexWrap: { xs: 'wrap', sm: 'nowrap' },
          }}
        >
          <BikePicture record={record} />
          <Box sx={{ flex: '1 1 180px', minWidth: 0 }}>
            <Typography variant="h1">
              <Link component={RouterLink} to={`/customers/${record.customer.id}`} color="inherit" underline="hover">
                {record.customer.name}
              </Link>
            </Typography>
            <Typography color="textSecondary">
              <BikeLine bike={summary} teeth />, {t('find.tag', { tag: summary.tag })}
            </Typography>
          </Box>
          <KeyButton
            of="bike.measure"
            variant="contained"
            onClick={measure}
            sx={{ minHeight: 56, px: 3, flexShrink: 0, width: { xs: '100%', sm: 'auto' } }}
          >
            {t('bike.measure')}
          </KeyButton>
        </Stack>
        <TwinsOfBike record={record} />
        {record.goneOn !== null && record.mergedInto === null && (
          <Typography role="status" sx={{ fontWeight: 700, color: ink('brass') }}>
            {t('bike.goneSince', { date: day(record.goneOn) })}
          </Typography>
        )}
        <StandingHeading summary={summary} height={30} />
        <Box sx={{ maxWidth: 640 }}>
          <WearRule
            size="medium"
            marks={summary.marks}
            limit={summary.limit}
            {...(verdict ? { watch: verdict.outcome.watch } : {})}
            colour={VERDICT_LOOK[summary.standing.word].colour}
          />
        </Box>
        {verdict && (
          <Box>
            <Typography>
              <StandingSentence summary={summary} verdict={verdict.outcome} school={school} />{' '}
              <Link
                component="button"
                type="button"
                onClick={() => setWhyOpen(true)}
                aria-label={`${t('why.title')} ${t(`word.${summary.standing.word}`)}`}
                sx={{ font: 'inherit', fontWeight: 500, verticalAlign: 'baseline', minHeight: 24, px: 0.25 }}
              >
                {t('why.title')}
              </Link>{' '}
              <Cap of="bike.why" />{' '}
              <KeyButton of="bike.decide" onClick={() => setDeciding(true)} sx={{ px: 0.5, ml: 1 }}>
                {t('bike.decide')}
              </KeyButton>
            </Typography>
            <SettleAndFlags verdict={verdict.outcome} present={summary.standing.because === 'verdict'} />
            {deciding && <DecideDialog record={record} onClose={() => setDeciding(false)} />}
            <WhyDialog
              open={whyOpen}
              onClose={() => setWhyOpen(false)}
              explanations={verdict.outcome.steps}
              answer={answer(summary)}
              verdict={verdict.outcome}
              school={school}
              marks={summary.marks}
              note={t('why.rules', { school: t(`school.${school}`), version: verdict.ruleVersion })}
            />
          </Box>
        )}
        <BikeWays bikeId={id} />
        <Decisions record={record} />
        <AtOdds record={record} />
        {record.forecast && record.verdictInput?.life ? (
          <ForecastWords
            forecast={record.forecast}
            life={record.verdictInput.life}
            unit={unitOf(record)}
            now={openedAt}
            byNow={summary.standing.chance ?? record.forecast.overNow}
            checkOn={summary.checkOn}
            picture={forecast.picture}
            assumed={assumptionsWith(record.assumptions)}
          />
        ) : (
          record.chain && <Typography color="textSecondary">{t('forecast.none')}</Typography>
        )}
        <ChainWear record={record} forecast={forecast} height={230} />
        <WaitingCosts record={record} forecast={forecast} />
        <BikeFacts record={record} />
      </Stack>
      <Timeline record={record} band={forecast.picture?.band ?? null} />
    </Box>
  )
}
