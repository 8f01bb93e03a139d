import { Alert, Box, Button, Stack, Typography } from '@mui/material'
import { useTranslation } from 'react-i18next'
import { Link, useNavigate, useParams } from 'react-router'
import { SURFACES, surfaceShares, type SurfaceKm } from '@pelrin/core'
import { useBike, useLedger } from '../../api/queries.ts'
import { day, distance, number, percentDone, shareText, unitOf } from '../../messages/format.ts'
import { BikeLine } from '../../pieces/BikeLine.tsx'
import { Failure, Loading } from '../../pieces/States.tsx'
import { useTitle } from '../../pieces/useTitle.ts'
import { ink } from '../../theme/theme.ts'
import { EntryList } from './EntryList.tsx'
import { ImportPane } from './ImportPane.tsx'
import { RideAccountPane } from './RideAccountPane.tsx'
import { RideList } from './RideList.tsx'
import { WriteDown } from './WriteDown.tsx'
import { Allowed } from '../../pieces/Allowed.tsx'
import { useCommands } from '../../keys/useCommands.ts'

/** What a bike was ridden: its ledger, its rides, and how more of them come in. */
export function DistancePlace() {
  const { t } = useTranslation()
  const { id = '' } = useParams()
  const navigate = useNavigate()
  const bike = useBike(id)
  const ledger = useLedger(id)
  const record = bike.data
  useCommands('distance', { back: () => navigate(`/bikes/${id}`) })
  useTitle(t('distanceOf.title'))
  if (bike.isPending || ledger.isPending) return <Loading />
  if (!record || !ledger.data)
    return (
      <Failure
        error={bike.error ?? ledger.error}
        again={() => {
          void bike.refetch()
          void ledger.refetch()
        }}
      />
    )
  const unit = unitOf(record)
  const { data } = ledger
  return (
    <Box
      sx={{ display: 'grid', gridTemplateColumns: { xs: '1fr', md: 'minmax(0, 1fr) 400px' }, height: { md: '100%' } }}
    >
      <Stack sx={{ px: 2.75, pt: 1.75, pb: 3, gap: 2, minWidth: 0, overflow: { md: 'auto' } }}>
        <Stack direction="row" sx={{ justifyContent: 'space-between', alignItems: 'flex-start', gap: 2 }}>
          <Box>
            <Typography variant="h1">{t('distanceOf.title')}</Typography>
            <Typography color="textSecondary">
              {record.customer.name}, <BikeLine bike={record.summary} />
            </Typography>
          </Box>
          <Button component={Link} to={`/bikes/${id}`} variant="outlined" sx={{ flexShrink: 0 }}>
            {t('distanceOf.toBike')}
          </Button>
        </Stack>
        {data.exceeded.map(({ from, to, ridesKm, odometerKm }) => (
          <Alert
            key={from}
            severity="warning"
            icon={false}
            sx={{ border: `1.5px dashed ${ink('brass')}`, bgcolor: 'transparent', color: 'text.primary' }}
          >
            {t('distanceOf.exceeded', {
              from: day(from),
              to: day(to),
              rides: distance(ridesKm, unit),
              odometer: distance(odometerKm, unit),
            })}
          </Alert>
        ))}
        <MixBar mix={data.mix} />
        <Typography variant="body2">
          {t('distanceOf.mix')} {t(`distanceOf.mixOf.${data.usual.of}`)}.{' '}
          {t('distanceOf.factor', { factor: number(data.usual.factor, 2) })}{' '}
          {data.chainKmToday !== null && t('distanceOf.today', { km: distance(data.chainKmToday, unit) })}
        </Typography>
        <Allowed right="distance">
          <WriteDown bikeId={id} unit={unit} startUnknown={record.chain !== null && record.chain.start !== 'fitted'} />
        </Allowed>
        <RideList bikeId={id} ledger={data} unit={unit} />
      </Stack>
      <Stack
        component="aside"
        aria-label={t('imports.title')}
        sx={{
          px: 2.25,
          py: 1.75,
          gap: 3,
          borderLeft: { md: 1 },
          borderColor: { md: 'divider' },
          overflow: { md: 'auto' },
        }}
      >
        <Allowed right="distance">
          <ImportPane bikeId={id} unit={unit} />
          <RideAccountPane bikeId={id} />
        </Allowed>
        <EntryList bikeId={id} ledger={data} unit={unit} />
      </Stack>
    </Box>
  )
}

/** Kilometres by surface, side by side in their shares, each named in words. */
function MixBar({ mix }: { mix: SurfaceKm }) {
  const { t } = useTranslation()
  const shares = surfaceShares(mix)
  if (!shares) return null
  const parts = SURFACES.filter((surface) => shares.of[surface] > 0)
  const fill = { indoor: 0.05, dry: 0.15, damp: 0.35, wet: 0.6, gritty: 0.9 } as const
  return (
    <Box>
      <Stack direction="row" sx={{ height: 22, border: `1.5px solid ${ink('edge')}` }} aria-hidden>
        {parts.map((surface) => (
          <Box
            key={surface}
            sx={{
              width: `${percentDone(shares.of[surface], 1)}%`,
              position: 'relative',
              borderRight: `1px solid ${ink('edge')}`,
              '&:last-of-type': { borderRight: 0 },
            }}
          >
            <Box sx={{ position: 'absolute', inset: 0, bgcolor: ink('steel'), opacity: fill[surface] }} />
          </Box>
        ))}
      </Stack>
      <Stack direction="row" sx={{ gap: 2, flexWrap: 'wrap', mt: 0.5 }}>
        {parts.map((surface) => (
          <Typography key={surface} variant="body2">
            <Box
              component="span"
              aria-hidden
              sx={{
                display: 'inline-block',
                width: 12,
                height: 12,
                mr: 0.75,
                border: `1px solid ${ink('edge')}`,
                position: 'relative',
                top: 1,
              }}
            >
              <Box
                component="span"
                sx={{ position: 'absolute', inset: 0, bgcolor: ink('steel'), opacity: fill[surface] }}
              />
            </Box>
            {t(`distanceOf.surfaceOf.${surface}`)} {shareText(shares.of[surface])} %
          </Typography>
        ))}
        <Typography variant="body2" color="textSecondary">
          {t('distanceOf.saidOf', { share: shareText(shares.told) })}
        </Typography>
      </Stack>
    </Box>
  )
}
