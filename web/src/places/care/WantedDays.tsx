import { Box, Button, Stack, TextField, Typography } from '@mui/material'
import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import { v7 } from 'uuid'
import { isWaxed } from '@pelrin/core'
import { endpoints, type BikeCare, type EventDate } from '@pelrin/contract'
import { ask } from '../../api/client.ts'
import { useBikeWrite } from '../../api/useBikeWrite.ts'
import { day, distance, today } from '../../messages/format.ts'
import { KeyCap } from '../../pieces/KeyCap.tsx'
import { SheetDialog } from '../../pieces/SheetDialog.tsx'
import { ink } from '../../theme/theme.ts'
import { DatedLine } from './DatedLine.tsx'

/** Days a bike is wanted for, and what its chain needs before each. */
export function WantedDays({
  care,
  unit,
  busy,
  onAdd,
  onDrop,
}: {
  care: BikeCare
  unit: 'km' | 'mi'
  busy: boolean
  onAdd: () => void
  onDrop: (id: string) => void
}) {
  const { t } = useTranslation()
  const waxed = care.chain !== null && isWaxed(care.chain.care)
  const needs = ({ care: before }: EventDate): string => {
    if (!before) return t('caring.wanted.unknown')
    const said = before.word === 'treat' && waxed ? 'treat-waxed' : before.word
    return t(`caring.wanted.${said}`, { date: day(before.by), km: distance(care.firstRideKm, unit) })
  }
  return (
    <Box component="section" aria-labelledby="wanted-days" sx={{ pt: 1 }}>
      <Stack direction="row" sx={{ gap: 2, alignItems: 'baseline' }}>
        <Typography id="wanted-days" variant="h3" component="h2" color="textSecondary" sx={{ flex: 1 }}>
          {t('caring.wanted.title')}
        </Typography>
        <Button onClick={onAdd} sx={{ gap: 1, px: 1 }}>
          {t('caring.wanted.add')} <KeyCap>D</KeyCap>
        </Button>
      </Stack>
      {care.eventDates.length === 0 && (
        <Typography variant="body2" color="textSecondary">
          {t('caring.wanted.none')}
        </Typography>
      )}
      <Box component="ul" aria-label={t('caring.wanted.title')} sx={{ listStyle: 'none', m: 0, p: 0 }}>
        {care.eventDates.map((date) => (
          <DatedLine
            key={date.id}
            on={date.day}
            back={t('caring.wanted.drop')}
            busy={busy}
            onBack={() => onDrop(date.id)}
          >
            <Typography variant="body2">
              <strong>{date.name}</strong>
              <Box component="span" sx={date.care?.word === 'treat' ? { color: ink('brass'), fontWeight: 600 } : {}}>
                {`: ${needs(date)}`}
              </Box>
            </Typography>
          </DatedLine>
        ))}
      </Box>
    </Box>
  )
}

/** Says for which day, and what for. */
export function WantedDialog({
  bikeId,
  onClose,
  onAdded,
}: {
  bikeId: string
  onClose: () => void
  onAdded: () => void
}) {
  const { t } = useTranslation()
  const { wrong, busy, write, field } = useBikeWrite(bikeId)
  const [id] = useState(() => v7())
  const [name, setName] = useState('')
  const [on, setOn] = useState('')
  const save = async (): Promise<void> => {
    const body = { id, day: on, name: name.trim() }
    if (await write(() => ask(endpoints.addEventDate, { params: { id: bikeId }, key: id, body }))) onAdded()
  }
  return (
    <SheetDialog open onClose={onClose} title={t('caring.wanted.addTitle')} maxWidth="sm" fullWidth>
      <Stack
        component="form"
        noValidate
        onSubmit={(event) => {
          event.preventDefault()
          void save()
        }}
        sx={{ gap: 1, pt: 1 }}
      >
        <TextField
          autoFocus
          label={t('caring.wanted.name')}
          value={name}
          onChange={(event) => setName(event.target.value)}
          {...field('name')}
        />
        <TextField
          type="date"
          label={t('caring.wanted.day')}
          value={on}
          onChange={(event) => setOn(event.target.value)}
          slotProps={{ inputLabel: { shrink: true }, htmlInput: { min: today() } }}
          {...field('day')}
        />
        {wrong !== null && Object.keys(wrong.fields).length === 0 && (
          <Typography role="alert" color="error">
            {wrong.sentence}
          </Typography>
        )}
        <Button type="submit" variant="contained" disabled={busy} sx={{ alignSelf: 'flex-end', px: 4 }}>
          {t('app.save')}
        </Button>
      </Stack>
    </SheetDialog>
  )
}
