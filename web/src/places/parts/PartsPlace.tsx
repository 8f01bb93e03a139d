import { Box, Stack, Typography } from '@mui/material'
import { useTranslation } from 'react-i18next'
import { useParams } from 'react-router'
import type { BikeMatch, BikeParts, BikeRecord } from '@pelrin/contract'
import { useBike, useBikeParts } from '../../api/queries.ts'
import { BikeLine } from '../../pieces/BikeLine.tsx'
import { KeyButton } from '../../pieces/KeyButton.tsx'
import { Failure, Loading } from '../../pieces/States.tsx'
import { useTitle } from '../../pieces/useTitle.ts'
import { saidOf } from '../../messages/said.ts'
import { OrderDialog } from '../orders/OrderDialog.tsx'
import { ChainsPane } from './ChainsPane.tsx'
import { CompareDialog } from './CompareDialog.tsx'
import { CutWords } from './CutWords.tsx'
import { DriveDialog } from './DriveDialog.tsx'
import { JobParts } from './JobParts.tsx'
import { JointDialog } from './JointDialog.tsx'
import { JointsPane } from './JointsPane.tsx'
import { LengthPane } from './LengthPane.tsx'
import { PartsTabs } from './PartsTabs.tsx'
import { usePartsPlace, type PartsView } from './usePartsPlace.ts'

/** With what, how long, and do we have it: chains, joints and the length for one bike. */
export function PartsPlace() {
  const { t } = useTranslation()
  const { id = '' } = useParams()
  const bike = useBike(id)
  const found = useBikeParts(id)
  useTitle(t('place.parts'))
  if (bike.isPending || found.isPending) return <Loading />
  if (!bike.data || !found.data)
    return (
      <Failure
        error={bike.error ?? found.error}
        again={() => {
          void bike.refetch()
          void found.refetch()
        }}
      />
    )
  return <PartsOf key={id} bike={bike.data} facts={found.data} />
}

function PartsOf({ bike, facts }: { bike: BikeRecord; facts: BikeParts }) {
  const view = usePartsPlace(bike, facts)
  const { lines, differs, keeping, keep, letGo, setSheet } = view
  return (
    <Box
      sx={{
        display: 'grid',
        gridTemplateColumns: { xs: 'minmax(0, 1fr)', md: 'minmax(0, 1fr) minmax(0, 1fr) 372px' },
        gridTemplateRows: { md: 'auto minmax(0, 1fr) auto' },
        height: { md: '100%' },
        columnGap: 2.5,
        px: 2.75,
        pt: 1.5,
      }}
    >
      <Head {...view} />
      <ChainsPane {...view} />
      <JointsPane {...view} />
      <Box sx={{ gridColumn: { md: '1 / 3' }, gridRow: { md: 3 }, minWidth: 0 }}>
        <JobParts
          lines={lines}
          kept={facts.kept}
          differs={differs}
          busy={keeping.busy}
          wrong={keeping.wrong}
          onKeep={keep}
          onLetGo={() => letGo?.()}
          onOrder={() => setSheet('order')}
        />
      </Box>
      <Length {...view} />
      <Sheets {...view} />
    </Box>
  )
}

function Head({ bike, facts, setSheet }: PartsView) {
  const { t } = useTranslation()
  return (
    <Stack
      direction="row"
      sx={{
        gridColumn: { md: '1 / 3' },
        justifyContent: 'space-between',
        alignItems: 'flex-start',
        gap: 2,
        pb: 1,
        flexWrap: { xs: 'wrap', md: 'nowrap' },
      }}
    >
      <Box sx={{ minWidth: 0 }}>
        <Typography variant="h1" noWrap>
          {bike.customer.name}
        </Typography>
        <Typography color="textSecondary" noWrap>
          <BikeLine bike={bike.summary} teeth />
          {facts.drive.system !== null && `, ${facts.drive.system.name}`}
        </Typography>
      </Box>
      <Stack direction="row" sx={{ gap: 1.5, flexShrink: { md: 0 }, flexWrap: 'wrap' }}>
        <PartsTabs now="bike" bikeId={bike.summary.id} />
        <KeyButton of="parts.drive" variant="outlined" onClick={() => setSheet('drive')} sx={{ px: 1.5 }}>
          {t('parts.drive')}
        </KeyButton>
      </Stack>
    </Stack>
  )
}

function Length({ facts, choice, choose, assumed, pitches, match, chain, joint }: PartsView) {
  const { t } = useTranslation()
  return (
    <Stack
      sx={{
        gridColumn: { md: 3 },
        gridRow: { md: '1 / 4' },
        minHeight: 0,
        overflow: { md: 'auto' },
        gap: 1.5,
        pb: 2,
      }}
    >
      <LengthPane
        facts={facts}
        of={choice.of}
        assumed={assumed}
        pitches={pitches}
        worked={match.pitches}
        halfLink={choice.halfLink}
        onHalfLink={(halfLink) => choose({ halfLink })}
        onPitches={(count) => choose({ pitches: count })}
      />
      {chain && joint && pitches !== null && <CutWords pitches={pitches} chain={chain.part} joint={joint.part} />}
      <WantedFacts parts={match} />
      <Typography variant="body2" color="textSecondary">
        {t('parts.caution')}
      </Typography>
    </Stack>
  )
}

function Sheets({ bike, facts, matching, match, chain, toOrder, sheet, setSheet }: PartsView) {
  const close = (): void => setSheet(null)
  const bikeId = bike.summary.id
  if (sheet === 'drive') return <DriveDialog bikeId={bikeId} parts={facts} onClose={close} />
  if (sheet === 'joint')
    return <JointDialog bikeId={bikeId} parts={facts} joints={matching?.joints ?? []} onClose={close} />
  if (sheet === 'compare' && chain) return <CompareDialog chains={match.chains} first={chain.part.id} onClose={close} />
  return sheet === 'order' && <OrderDialog wanted={toOrder} onClose={close} />
}

/** Facts that are not known, together, and what each would decide. */
function WantedFacts({ parts }: { parts: BikeMatch }) {
  const { t } = useTranslation()
  if (parts.wanted.length === 0) return null
  return (
    <Box component="section" aria-label={t('parts.wanted')}>
      <Typography variant="h3" component="h3" color="textSecondary">
        {t('parts.wanted')}
      </Typography>
      {parts.wanted.map(({ fact, rules }) => (
        <Typography key={fact} variant="body2">
          <b>{t(`parts.fact.${fact}`)}</b>{' '}
          {t('parts.decides', { rules: rules.map((rule) => saidOf(t, 'parts.rule', rule)).join(', ') })}
        </Typography>
      ))}
    </Box>
  )
}
