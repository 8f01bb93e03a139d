import { Box, Link, Typography } from '@mui/material'
import { useTranslation } from 'react-i18next'
import { Link as Way } from 'react-router'
import type { ThingEvent } from '@pelrin/contract'
import { day, percent } from '../../messages/format.ts'
import { intervalText } from '../../pieces/intervalText.ts'
import { saidOf, saidWith } from '../../messages/said.ts'

/**
 * What happened to a chain or a joint, newest first, on whichever bike it was.
 *
 * @param bikeId the bike whose page this is, which needs no way to it
 */
export function ThingTimeline({ events, bikeId }: { events: readonly ThingEvent[]; bikeId?: string }) {
  const { t } = useTranslation()
  return (
    <Box component="ol" aria-label={t('chains.timeline')} sx={{ listStyle: 'none', m: 0, p: 0 }}>
      {events.map((event) => (
        <Box
          component="li"
          key={`${event.id}${event.kind}`}
          sx={{
            display: 'grid',
            gridTemplateColumns: '96px minmax(0, 1fr)',
            gap: 1.5,
            py: 0.9,
            borderTop: 1,
            borderColor: 'divider',
          }}
        >
          <Typography variant="body2" color="textSecondary">
            {day(event.at)}
          </Typography>
          <Box>
            <Typography variant="body2" sx={{ fontWeight: 600 }}>
              <EventWords event={event} here={bikeId} />
            </Typography>
            <Typography variant="body2" color="textSecondary">
              {[
                event.kind === 'read' ? event.text : null,
                event.kind.startsWith('joint') && event.bike !== null && event.bike.id !== bikeId
                  ? `${event.bike.customer}, ${event.bike.label}`
                  : null,
                event.person,
              ]
                .filter((part) => part !== null)
                .join(', ')}
            </Typography>
          </Box>
        </Box>
      ))}
    </Box>
  )
}

function EventWords({ event, here }: { event: ThingEvent; here: string | undefined }) {
  const { t } = useTranslation()
  const { kind, bike, value, over, under, text } = event
  const read = value === null ? intervalText({ over, under }, t) : `${percent(value)} %`
  const named = bike && `${bike.customer}, ${bike.label}`
  const words =
    kind === 'read' && value === null && over === null && under === null
      ? t('chains.event.readHint')
      : saidWith(t, `chains.event.${kind}`, { bike: named ?? '', value: kind === 'read' ? read : value })
  const more =
    kind === 'taken-off' && text !== null
      ? saidOf(t, 'bike.takenOffReason', text)
      : (kind === 'joint-closed' || kind === 'joint-seen') && text !== null
        ? saidOf(t, 'chains.click', text)
        : null
  const onBike =
    bike !== null && bike.id !== here && (kind === 'fitted' || kind === 'came-with' || kind === 'taken-off')
  return (
    <>
      {onBike ? (
        <Link component={Way} to={`/bikes/${bike.id}`}>
          {words}
        </Link>
      ) : (
        words
      )}
      {more !== null && `, ${more}`}
    </>
  )
}
