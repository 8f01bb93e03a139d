import { Button, Stack, TextField } from '@mui/material'
import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import { v7 } from 'uuid'

/** A first pot, or a further one. */
export function AddPot({
  busy,
  onAdd,
}: {
  busy: boolean
  onAdd: (pot: { id: string; name: string; capacity: number }) => void
}) {
  const { t } = useTranslation()
  const [name, setName] = useState('')
  const [capacity, setCapacity] = useState('4')
  const count = /^\d{1,2}$/.test(capacity.trim()) ? Number(capacity) : 0
  const bad = count < 1 || count > 40
  return (
    <Stack
      component="form"
      noValidate
      sx={{ gap: 1, pt: 1 }}
      onSubmit={(event) => {
        event.preventDefault()
        if (!bad && name.trim() !== '') onAdd({ id: v7(), name: name.trim(), capacity: count })
      }}
    >
      <TextField label={t('pot.potName')} value={name} onChange={(event) => setName(event.target.value)} />
      <TextField
        label={t('pot.potCapacity')}
        value={capacity}
        onChange={(event) => setCapacity(event.target.value)}
        error={bad}
        helperText={bad ? t('problems.pot-capacity-range') : ' '}
        slotProps={{ htmlInput: { inputMode: 'numeric' } }}
      />
      <Button type="submit" variant="outlined" disabled={busy || bad || name.trim() === ''}>
        {t('pot.addPot')}
      </Button>
    </Stack>
  )
}
