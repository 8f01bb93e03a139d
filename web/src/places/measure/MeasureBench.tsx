import { Box, Stack, Typography } from '@mui/material'
import { useTranslation } from 'react-i18next'
import { BikeLine } from '../../pieces/BikeLine.tsx'
import { BenchFoot } from './BenchFoot.tsx'
import { BenchNotices } from './BenchNotices.tsx'
import { InstrumentWall } from './InstrumentWall.tsx'
import { LivePane } from './LivePane.tsx'
import { RoundEntry } from './RoundEntry.tsx'
import { Traps } from './Traps.tsx'
import { useMeasureBench, type BenchProps } from './useMeasureBench.ts'

/** The chain is read: instruments above, the round on the left, on the right what it comes to while it is typed. */
export function MeasureBench(props: BenchProps) {
  const { t } = useTranslation()
  const bench = useMeasureBench(props)
  const { record, instruments, corrects, instrument, assumed, draft, spots, drawnPlace } = bench
  return (
    <Box
      sx={{
        display: 'grid',
        gridTemplateColumns: { xs: '1fr', md: '430px minmax(0, 1fr)' },
        gridTemplateRows: 'auto 1fr',
        minHeight: '100%',
      }}
    >
      <InstrumentWall
        instruments={instruments}
        chosen={instrument.id}
        onChoose={bench.choose}
        onDone={bench.focusEntry}
      />
      <Stack sx={{ p: 2.25, pt: 1.25, gap: 1.25, borderRight: { md: 1 }, borderColor: { md: 'divider' } }}>
        <Box>
          <Typography variant="h2" component="h1">
            {corrects ? t('bike.correctTitle') : record.customer.name}
          </Typography>
          <Typography color="textSecondary">
            {corrects && `${record.customer.name}, `}
            <BikeLine bike={record.summary} teeth={!corrects} />, {t('find.tag', { tag: record.summary.tag })}
          </Typography>
        </Box>
        <BenchNotices {...bench} />
        <RoundEntry {...bench} />
        <BenchFoot {...bench} />
        <Traps instrument={instrument} preloadKg={assumed.measuring.preloadKg} />
      </Stack>
      <LivePane
        record={record}
        instrument={instrument}
        live={bench.live}
        anything={bench.anything}
        spots={spots}
        draft={draft}
        drawn={{ spot: draft.spots[drawnPlace]!, reading: spots[drawnPlace]! }}
        assumed={assumed}
        picture={bench.picture}
        life={bench.life}
        whyOpen={bench.whyOpen}
        onWhy={bench.setWhyOpen}
      />
    </Box>
  )
}
