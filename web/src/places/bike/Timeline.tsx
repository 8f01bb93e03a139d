import { Box, Button, Stack, Typography } from '@mui/material'
import type { BandPoint } from '@pelrin/core'
import { useTranslation } from 'react-i18next'
import { useNavigate } from 'react-router'
import type { BikeRecord, CorrectedReading, Reading, Spot } from '@pelrin/contract'
import { clock, day, distance, percent, unitOf } from '../../messages/format.ts'
import { elongationText } from '../../pieces/intervalText.ts'
import { Cap } from '../../pieces/Cap.tsx'
import { takenText } from '../../pieces/takenText.ts'
import { TheirsAndOurs } from '../../pieces/TheirsAndOurs.tsx'
import { Why } from '../../pieces/Why.tsx'
import { ink } from '../../theme/theme.ts'
import { Unlooked } from '../looks/Unlooked.tsx'
import { Allowed } from '../../pieces/Allowed.tsx'
import { saidOf } from '../../messages/said.ts'

/** Whether a reading can be corrected here: one of the chain that is on the bike now. */
export const canCorrect = (reading: Reading, record: BikeRecord): boolean =>
  reading.occurredAt >= (record.chain?.fittedAt ?? '')

type Item = { at: string; reading: Reading } | { at: string; event: BikeRecord['events'][number] }

/** Everything that happened to the bike, newest first. */
export function Timeline({
  record,
  band,
}: {
  record: BikeRecord
  /** What the shop's own readings have the chain at, by distance; null with no forecast. */
  band: readonly BandPoint[] | null
}) {
  const { t } = useTranslation()
  const unit = unitOf(record)
  const items: Item[] = [
    ...record.readings.map((reading) => ({ at: reading.occurredAt, reading })),
    ...record.events.map((event) => ({ at: event.at, event })),
  ].sort((a, b) => (a.at < b.at ? 1 : -1))
  const newest = record.readings.find((reading) => canCorrect(reading, record))
  return (
    <Box
      component="section"
      aria-label={t('bike.timeline')}
      tabIndex={0}
      sx={{ borderLeft: { md: 1 }, borderColor: { md: 'divider' }, overflow: { md: 'auto' }, px: 2.25, py: 1.25 }}
    >
      <Typography variant="h3" component="h2" color="textSecondary" sx={{ mb: 0.5 }}>
        {t('bike.timeline')}
      </Typography>
      {items.length === 0 && <Typography color="textSecondary">{t('bike.nothing')}</Typography>}
      <Box component="ol" sx={{ listStyle: 'none', m: 0, p: 0 }}>
        {items.map((item) => (
          <Box
            component="li"
            key={'reading' in item ? item.reading.id : `${item.event.id}${item.event.kind}`}
            sx={{
              display: 'grid',
              gridTemplateColumns: '88px minmax(0, 1fr)',
              gap: 1.5,
              py: 1,
              borderTop: 1,
              borderColor: 'divider',
            }}
          >
            <Typography variant="body2" color="textSecondary" sx={{ pt: '2px' }}>
              {day(item.at)}
            </Typography>
            {'reading' in item ? (
              <ReadingItem
                record={record}
                band={band}
                reading={item.reading}
                unit={unit}
                isNewest={item.reading.id === newest?.id}
              />
            ) : (
              <EventItem event={item.event} unit={unit} />
            )}
          </Box>
        ))}
      </Box>
    </Box>
  )
}

function EventItem({ event, unit }: { event: BikeRecord['events'][number]; unit: 'km' | 'mi' }) {
  const { t } = useTranslation()
  const itemName = event.item === null ? '' : t(`otherWear.item.${event.item}`)
  const text = {
    fitted: () => t('bike.fitted', { chain: event.text ?? '' }),
    'came-with': () => t('bike.cameIn', { chain: event.text ?? '' }),
    'taken-off': () =>
      `${t('bike.takenOff')}${event.text === null ? '' : `: ${saidOf(t, 'bike.takenOffReason', event.text)}`}`,
    odometer: () => t('bike.odometer', { value: distance(event.value ?? 0, unit) }),
    shortened: () => t('bike.shortened', { count: event.value ?? 0 }),
    cut: () => t('bike.cut', { count: event.value ?? 0 }),
    rejoined: () => t('bike.rejoined'),
    lengthened: () => t('bike.lengthened', { count: event.value ?? 0 }),
    'part-on': () =>
      event.text === null
        ? t('bike.partOn', { context: 'unnamed', item: itemName, name: '' })
        : t('bike.partOn', { item: itemName, name: event.text }),
    'part-off': () =>
      `${t('bike.partOff', { item: itemName })}${event.text === null ? '' : `: ${saidOf(t, 'bike.takenOffReason', event.text)}`}`,
  }[event.kind]()
  return (
    <Box>
      <Typography variant="body2" sx={{ fontWeight: event.kind === 'odometer' ? 400 : 600 }}>
        {text}
      </Typography>
      {event.person && (
        <Typography variant="body2" color="textSecondary">
          {event.person}
        </Typography>
      )}
    </Box>
  )
}

function ReadingItem({
  record,
  band,
  reading,
  unit,
  isNewest,
}: {
  record: BikeRecord
  band: readonly BandPoint[] | null
  reading: Reading
  unit: 'km' | 'mi'
  isNewest: boolean
}) {
  const { t } = useTranslation()
  const navigate = useNavigate()
  const s = record.verdictInput?.readings.find(({ id }) => id === reading.id)?.s
  const worst = worstOf(reading)
  return (
    <Box>
      <Stack direction="row" sx={{ justifyContent: 'space-between', alignItems: 'flex-start', gap: 1 }}>
        <Values reading={reading} limit={record.summary.limit} />
        {canCorrect(reading, record) && (
          <Allowed right="record">
            <Button
              size="small"
              onClick={() => void navigate(`/bikes/${record.summary.id}/measure?correct=${reading.id}`)}
              sx={{ minHeight: 40, mt: -0.75, mr: -1, gap: 1, flexShrink: 0 }}
            >
              {t('bike.correct')} {isNewest && <Cap of="bike.correct" />}
            </Button>
          </Allowed>
        )}
      </Stack>
      <Typography variant="body2" color="textSecondary">
        {t('bike.by', { person: reading.person, instrument: reading.instrument.name })}
        {reading.reader !== null && `, ${t('bike.held', { person: reading.reader })}`}
        {reading.spots.length > 0 && `, ${takenText(reading.conditions, t)}`}
        {reading.source === 'customer' && `, ${t('bike.customerOwn')}`}
        {reading.note !== null && `, ${reading.note}`}
        {reading.baseline && `, ${t('bike.baseline')}`}
        {reading.odometer && `, ${distance(reading.odometer.km, unit)}`}
        {reading.chainKm !== null && `, ${t('bike.at', { km: distance(reading.chainKm, unit) })}`}
      </Typography>
      {reading.source === 'customer' && worst && band && s != null && (
        <TheirsAndOurs theirs={elongationText(worst, t)} band={band} s={s} />
      )}
      {reading.unlooked && <Unlooked bikeId={record.summary.id} kind="reading" id={reading.id} />}
      {reading.corrected.length > 0 && (
        <Box sx={{ mt: 0.75, pl: 1.5, borderLeft: `3px solid ${ink('line')}` }}>
          <Typography variant="body2">
            {t('bike.corrected')}
            {reading.reason}
            <Box component="span" sx={{ color: 'text.secondary' }}>
              {' '}
              ({reading.person}, {day(reading.recordedAt)} {clock(reading.recordedAt)})
            </Box>
          </Typography>
          {reading.corrected.map((old) => (
            <Box key={old.id} sx={{ mt: 0.5 }}>
              <Typography component="span" variant="body2" color="textSecondary">
                {t('bike.was')}{' '}
              </Typography>
              <Box component="s" sx={{ fontSize: 'size.small' }}>
                {old.spots
                  .map((spot) => `${spot.typed ?? ''}${spot.value === null ? '' : ` (${percent(spot.value)} %)`}`)
                  .join(', ')}
                {old.odometer && `, ${distance(old.odometer.km, unit)}`}
              </Box>
              <Typography variant="body2" color="textSecondary">
                {old.person}, {day(old.recordedAt)} {clock(old.recordedAt)}
                {old.reason && `: ${old.reason}`}
              </Typography>
            </Box>
          ))}
        </Box>
      )}
    </Box>
  )
}

const worstOf = ({ spots }: CorrectedReading): Spot | null =>
  spots.reduce<Spot | null>(
    (a, b) => (a === null || (b.value ?? b.over ?? -1) > (a.value ?? a.over ?? -1) ? b : a),
    null,
  )

function Values({ reading, limit }: { reading: CorrectedReading; limit: number }) {
  const { t } = useTranslation()
  const worst = worstOf(reading)
  if (!worst)
    return (
      <Typography variant="body2" sx={{ fontWeight: 600 }}>
        {reading.signs.length === 0
          ? t('bike.handNothing')
          : t('bike.hand', { signs: reading.signs.map((sign) => t(`measure.sign.${sign}`)).join(', ') })}
      </Typography>
    )
  const over = (worst.value ?? worst.over ?? 0) > limit
  const said = elongationText(worst, t)
  return (
    <Typography variant="body2">
      <Box component="span" sx={{ fontWeight: 700, fontSize: 'size.lead', color: over ? ink('madder') : 'inherit' }}>
        {said}
      </Box>{' '}
      ± {percent(worst.u)} <Why explanations={worst.explanations} label={said} />
      <Box component="span" sx={{ color: 'text.secondary', display: 'block' }}>
        {reading.spots
          .map((spot) =>
            spot.typed === null ? null : spot.pitches === null ? spot.typed : `${spot.typed} / ${spot.pitches}`,
          )
          .filter((text) => text !== null)
          .join(' · ')}
      </Box>
    </Typography>
  )
}
