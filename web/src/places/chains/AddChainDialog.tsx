import { Box, Button, MenuItem, Stack, TextField, Typography } from '@mui/material'
import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import { v7 } from 'uuid'
import { CARE_KINDS, type CareKind } from '@pelrin/core'
import { endpoints } from '@pelrin/contract'
import { ask } from '../../api/client.ts'
import { useBikeWrite } from '../../api/useBikeWrite.ts'
import { SheetDialog } from '../../pieces/SheetDialog.tsx'

/** A chain that joins a bike's rotation: begun with what the one that is on is. */
export function AddChainDialog({
  bikeId,
  like,
  onClose,
}: {
  bikeId: string
  like: { name: string; pitches: number | null; care: CareKind } | null
  onClose: () => void
}) {
  const { t } = useTranslation()
  const [id] = useState(() => v7())
  const [name, setName] = useState(like?.name ?? '')
  const [pitches, setPitches] = useState(like?.pitches?.toString() ?? '')
  const [care, setCare] = useState<CareKind>(like?.care ?? 'unknown')
  const { wrong, busy, write } = useBikeWrite(bikeId)
  const save = async (): Promise<void> => {
    const count = pitches.trim() === '' ? null : Number(pitches.trim())
    const body = { id, name, pitches: count, care }
    if (await write(() => ask(endpoints.addChain, { params: { id: bikeId }, key: id, body }))) onClose()
  }
  const field = (path: string) => ({ error: wrong?.fields[path] !== undefined, helperText: wrong?.fields[path] ?? ' ' })
  return (
    <SheetDialog open onClose={onClose} title={t('chains.addTitle')} maxWidth="sm" fullWidth>
      <Box
        component="form"
        noValidate
        onSubmit={(event) => {
          event.preventDefault()
          void save()
        }}
        sx={{ display: 'grid', gap: 1, pt: 1 }}
      >
        <Typography color="textSecondary">{t('chains.addNote')}</Typography>
        <TextField
          autoFocus
          label={t('chains.name')}
          value={name}
          onChange={(e) => setName(e.target.value)}
          {...field('name')}
        />
        <TextField
          label={t('chains.pitches')}
          value={pitches}
          onChange={(e) => setPitches(e.target.value)}
          {...field('pitches')}
          slotProps={{ htmlInput: { inputMode: 'numeric' } }}
        />
        <TextField select label={t('chains.care')} value={care} onChange={(e) => setCare(e.target.value as CareKind)}>
          {CARE_KINDS.map((one) => (
            <MenuItem key={one} value={one} sx={{ minHeight: 48 }}>
              {t(`care.${one}`)}
            </MenuItem>
          ))}
        </TextField>
        {wrong !== null && Object.keys(wrong.fields).length === 0 && (
          <Typography role="alert" color="error">
            {wrong.sentence}
          </Typography>
        )}
        <Stack direction="row" sx={{ justifyContent: 'flex-end', pt: 1 }}>
          <Button type="submit" variant="contained" disabled={busy} sx={{ px: 4 }}>
            {t('chains.add')}
          </Button>
        </Stack>
      </Box>
    </SheetDialog>
  )
}
