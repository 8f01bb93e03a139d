import { Box, Button, Stack, TextField, Typography } from '@mui/material'
import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import { v7 } from 'uuid'
import { KM_PER_MILE } from '@pelrin/core'
import { endpoints, type Ledger, type Ride } from '@pelrin/contract'
import { ask } from '../../api/client.ts'
import { keys, useFind } from '../../api/queries.ts'
import { clock, day, number } from '../../messages/format.ts'
import { CorrectRide } from './CorrectRide.tsx'
import { rideName } from './rideName.ts'
import { Allowed } from '../../pieces/Allowed.tsx'
import { ReasonDialog } from '../../pieces/ReasonDialog.tsx'
import { ofLedger } from './useLedgerWrite.ts'

type Doing = { readonly ride: Ride; readonly what: 'correct' | 'remove' | 'move' }

/** The bike's rides, newest first; each can be corrected, taken out, or moved to the bike it was ridden on. */
export function RideList({ bikeId, ledger, unit }: { bikeId: string; ledger: Ledger; unit: 'km' | 'mi' }) {
  const { t } = useTranslation()
  const [doing, setDoing] = useState<Doing | null>(null)
  const { rides, ridesTotal } = ledger
  return (
    <Box component="section" aria-label={t('distanceOf.rides_other', { count: ridesTotal })}>
      <Stack direction="row" sx={{ justifyContent: 'space-between', alignItems: 'center', flexWrap: 'wrap' }}>
        <Typography variant="h3" component="h2" color="textSecondary">
          {t('distanceOf.rides', { count: ridesTotal })}
          {ridesTotal > rides.length && `, ${t('distanceOf.ridesShown', { count: rides.length })}`}
        </Typography>
        {ridesTotal > 0 && (
          <Stack direction="row" sx={{ gap: 1 }}>
            <Button component="a" href={`/api/v1/bikes/${bikeId}/rides.gpx`} download>
              {t('distanceOf.exportGpx')}
            </Button>
            <Button component="a" href={`/api/v1/bikes/${bikeId}/rides.csv`} download>
              {t('distanceOf.exportCsv')}
            </Button>
          </Stack>
        )}
      </Stack>
      {ridesTotal === 0 && <Typography color="textSecondary">{t('distanceOf.noRides')}</Typography>}
      <Box component="ul" sx={{ listStyle: 'none', m: 0, p: 0 }}>
        {rides.map((ride) => (
          <Box
            component="li"
            key={ride.id}
            sx={{
              display: 'grid',
              gridTemplateColumns: '150px 92px 76px minmax(80px, 1fr) auto',
              alignItems: 'center',
              gap: 1,
              borderTop: 1,
              borderColor: 'divider',
              minHeight: 48,
              '@media (max-width: 700px)': { gridTemplateColumns: '1fr 1fr', py: 1 },
            }}
          >
            <Typography variant="body2">
              {day(ride.startedAt)}, {clock(ride.startedAt)}
            </Typography>
            <Typography sx={{ fontWeight: 600, textAlign: 'right' }}>
              {number(unit === 'mi' ? ride.km / KM_PER_MILE : ride.km, 1)} {unit}
            </Typography>
            <Typography variant="body2">{t(`distanceOf.surfaceOf.${ride.surface ?? 'unknown'}`)}</Typography>
            <Typography variant="body2" color="textSecondary" noWrap>
              {[ride.title, t(`distanceOf.source.${ride.source}`), ride.corrected ? t('distanceOf.corrected') : null]
                .filter((part) => part !== null)
                .join(', ')}
            </Typography>
            <Allowed right="distance">
              <Stack direction="row">
                {(['correct', 'move', 'remove'] as const).map((what) => (
                  <Button key={what} size="small" sx={{ minHeight: 44 }} onClick={() => setDoing({ ride, what })}>
                    {t(`distanceOf.${what}`)}
                  </Button>
                ))}
              </Stack>
            </Allowed>
          </Box>
        ))}
      </Box>
      {doing?.what === 'correct' && (
        <CorrectRide bikeId={bikeId} ride={doing.ride} unit={unit} onClose={() => setDoing(null)} />
      )}
      {doing?.what === 'remove' && (
        <RemoveRide bikeId={bikeId} ride={doing.ride} unit={unit} onClose={() => setDoing(null)} />
      )}
      {doing?.what === 'move' && (
        <MoveRide bikeId={bikeId} ride={doing.ride} unit={unit} onClose={() => setDoing(null)} />
      )}
    </Box>
  )
}

interface Changing {
  bikeId: string
  ride: Ride
  unit: 'km' | 'mi'
  onClose: () => void
}

function RemoveRide({ bikeId, ride, unit, onClose }: Changing) {
  const { t } = useTranslation()
  return (
    <ReasonDialog
      access={endpoints.removeRide.access}
      title={t('distanceOf.removeTitle')}
      go={t('distanceOf.remove')}
      stale={ofLedger(bikeId)}
      onClose={onClose}
      onReason={async (reason) => {
        const id = v7()
        await ask(endpoints.removeRide, { params: { id: ride.id }, key: id, body: { id, reason } })
      }}
    >
      <Typography>{rideName(ride, unit)}</Typography>
    </ReasonDialog>
  )
}

function MoveRide({ bikeId, ride, unit, onClose }: Changing) {
  const { t } = useTranslation()
  const [text, setText] = useState('')
  const [toBikeId, setToBikeId] = useState<string | null>(null)
  const found = useFind(text)
  return (
    <ReasonDialog
      access={endpoints.moveRide.access}
      title={`${t('distanceOf.moveTitle')}: ${rideName(ride, unit)}`}
      go={t('distanceOf.move')}
      ready={toBikeId !== null}
      stale={[...ofLedger(bikeId), keys.bike(toBikeId ?? '')]}
      onClose={onClose}
      onReason={async (reason) => {
        const id = v7()
        await ask(endpoints.moveRide, {
          params: { id: ride.id },
          key: id,
          body: { id, toBikeId: toBikeId ?? '', reason },
        })
      }}
    >
      <TextField
        autoFocus
        label={t('distanceOf.moveTo')}
        value={text}
        onChange={(event) => {
          setText(event.target.value)
          setToBikeId(null)
        }}
        sx={{ mt: 1 }}
      />
      <Box
        role="listbox"
        aria-label={t('distanceOf.moveTo')}
        sx={{ display: 'grid', gap: 0.5, maxHeight: 190, overflow: 'auto' }}
      >
        {(text.trim() === '' ? [] : (found.data?.bikes ?? []))
          .filter(({ id }) => id !== bikeId)
          .slice(0, 5)
          .map((bike) => (
            <Button
              key={bike.id}
              role="option"
              aria-selected={bike.id === toBikeId}
              variant={bike.id === toBikeId ? 'contained' : 'outlined'}
              onClick={() => setToBikeId(bike.id)}
              sx={{ justifyContent: 'flex-start', minHeight: 44 }}
            >
              {bike.customer.name}, {bike.label}, {t('find.tag', { tag: bike.tag })}
            </Button>
          ))}
      </Box>
    </ReasonDialog>
  )
}
