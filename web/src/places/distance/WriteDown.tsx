import { Box, Button, TextField, ToggleButton, ToggleButtonGroup, Typography } from '@mui/material'
import dayjs from 'dayjs'
import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import { v7 } from 'uuid'
import type { Surface } from '@pelrin/core'
import { endpoints } from '@pelrin/contract'
import { ask } from '../../api/client.ts'
import { typedNumber } from '../../messages/typedNumber.ts'
import { LedgerForm } from './LedgerForm.tsx'
import { SurfaceSelect } from './SurfaceSelect.tsx'
import { useLedgerWrite } from './useLedgerWrite.ts'

type Kind = 'ride' | 'odometer' | 'statement' | 'chain-start'

/** Writes down a ride, an odometer value, or what the customer says of a year. */
export function WriteDown({
  bikeId,
  unit,
  startUnknown,
}: {
  bikeId: string
  unit: 'km' | 'mi'
  /** The chain came in with the bike: what it had run before can be said. */
  startUnknown: boolean
}) {
  const { t } = useTranslation()
  const [kind, setKind] = useState<Kind>('ride')
  return (
    <Box component="section" aria-label={t('distanceOf.add')}>
      <ToggleButtonGroup
        exclusive
        value={kind}
        onChange={(_, chosen: Kind | null) => chosen && setKind(chosen)}
        aria-label={t('distanceOf.add')}
        sx={{ mb: 1.25, '& button': { minHeight: 48, px: 2.25 } }}
      >
        {(['ride', 'odometer', 'statement', ...(startUnknown ? ['chain-start' as const] : [])] as const).map((one) => (
          <ToggleButton key={one} value={one}>
            {t(`distanceOf.${one}`)}
          </ToggleButton>
        ))}
      </ToggleButtonGroup>
      {kind === 'ride' ? (
        <RideForm bikeId={bikeId} unit={unit} />
      ) : (
        <ValueForm key={kind} bikeId={bikeId} unit={unit} kind={kind} />
      )}
    </Box>
  )
}

function RideForm({ bikeId, unit }: { bikeId: string; unit: 'km' | 'mi' }) {
  const { t } = useTranslation()
  const { busy, at, write } = useLedgerWrite(bikeId)
  // Of an hour from nine on: before ten in the morning that was yesterday.
  const [on, setOn] = useState(dayjs().subtract(10, 'hour').format('YYYY-MM-DD'))
  const [from, setFrom] = useState('09:00')
  const [minutes, setMinutes] = useState('60')
  const [typed, setTyped] = useState('')
  const [surface, setSurface] = useState<Surface | null>(null)
  const [id, setId] = useState(() => v7())
  const save = async (): Promise<void> => {
    const start = dayjs(`${on}T${from}`)
    const body = {
      id,
      startedAt: start.isValid() ? start.toISOString() : '',
      endedAt: start.isValid() ? start.add(typedNumber(minutes) ?? 0, 'minute').toISOString() : '',
      typed,
      unit,
      surface,
    }
    if (!(await write(() => ask(endpoints.recordRide, { params: { id: bikeId }, body, key: id })))) return
    setTyped('')
    setId(v7())
  }
  const field = { size: 'small', slotProps: { inputLabel: { shrink: true } } } as const
  return (
    <LedgerForm onSend={() => void save()}>
      <TextField
        {...field}
        type="date"
        label={t('distanceOf.day')}
        value={on}
        onChange={(e) => setOn(e.target.value)}
        error={at('startedAt') !== undefined}
        helperText={at('startedAt') ?? ' '}
      />
      <TextField
        {...field}
        type="time"
        label={t('distanceOf.from')}
        value={from}
        onChange={(e) => setFrom(e.target.value)}
        helperText=" "
        sx={{ width: 140 }}
      />
      <TextField
        {...field}
        label={t('distanceOf.minutes')}
        value={minutes}
        onChange={(e) => setMinutes(e.target.value)}
        error={at('endedAt') !== undefined}
        helperText={at('endedAt') ?? ' '}
        sx={{ width: 92 }}
        slotProps={{ ...field.slotProps, htmlInput: { inputMode: 'numeric' } }}
      />
      <TextField
        {...field}
        label={`${t('distanceOf.km')}, ${unit}`}
        value={typed}
        onChange={(e) => setTyped(e.target.value)}
        error={at('typed') !== undefined}
        helperText={at('typed') ?? ' '}
        sx={{ width: 124 }}
        slotProps={{ ...field.slotProps, htmlInput: { inputMode: 'decimal' } }}
      />
      <SurfaceSelect
        size="small"
        value={surface}
        onChange={setSurface}
        helperText={surface === 'gritty' ? t('distanceOf.surfaceHelp') : ' '}
        sx={{ width: 124 }}
      />
      <Button type="submit" variant="contained" disabled={busy} sx={{ minHeight: 48 }}>
        {t('distanceOf.add')}
      </Button>
      {at('') && (
        <Typography role="alert" color="error" sx={{ width: '100%' }}>
          {at('')}
        </Typography>
      )}
    </LedgerForm>
  )
}

function ValueForm({ bikeId, unit, kind }: { bikeId: string; unit: 'km' | 'mi'; kind: Exclude<Kind, 'ride'> }) {
  const { t } = useTranslation()
  const { busy, wrong, at, write } = useLedgerWrite(bikeId)
  const [typed, setTyped] = useState('')
  const [id, setId] = useState(() => v7())
  const code = wrong?.code
  const doubted = code === 'odometer-lower' || code === 'odometer-much'
  const save = async (answer?: 'restarted' | 'as-it-is'): Promise<void> => {
    const body = { id, occurredAt: new Date().toISOString(), typed, unit, ...(answer ? { lower: answer } : {}) }
    const asking = { params: { id: bikeId }, key: `${id}${answer ?? ''}` }
    const written = await write(() =>
      kind === 'odometer'
        ? ask(endpoints.recordOdometer, { ...asking, body })
        : ask(endpoints.recordStatement, {
            ...asking,
            body: { ...body, of: kind === 'statement' ? 'year' : 'chain-start' },
          }),
    )
    if (!written) return
    setTyped('')
    setId(v7())
  }
  return (
    <LedgerForm onSend={() => void save()}>
      <TextField
        size="small"
        label={`${t(`distanceOf.${kind}New`)}, ${unit}`}
        value={typed}
        onChange={(event) => setTyped(event.target.value)}
        error={(at('typed') ?? at('')) !== undefined}
        helperText={at('typed') ?? at('') ?? ' '}
        sx={{ minWidth: 300 }}
        slotProps={{ inputLabel: { shrink: true }, htmlInput: { inputMode: 'decimal' } }}
      />
      {doubted ? (
        <>
          {code === 'odometer-lower' && (
            <Button variant="outlined" sx={{ minHeight: 48 }} onClick={() => void save('restarted')}>
              {t('distanceOf.restarted')}
            </Button>
          )}
          <Button variant="outlined" sx={{ minHeight: 48 }} onClick={() => void save('as-it-is')}>
            {t('distanceOf.asItIs')}
          </Button>
        </>
      ) : (
        <Button type="submit" variant="contained" disabled={busy} sx={{ minHeight: 48 }}>
          {t('distanceOf.add')}
        </Button>
      )}
    </LedgerForm>
  )
}
