import { Button, MenuItem, Stack, TextField, Typography } from '@mui/material'
import { INSTRUMENT_KINDS, type InstrumentKind } from '@pelrin/core'
import { useState } from 'react'
import { useTranslation } from 'react-i18next'

/** Asks once for all rows what the instruments are that a table only names. */
export function NamedInstruments({
  names,
  busy,
  onSay,
}: {
  names: readonly string[]
  busy: boolean
  onSay: (kinds: Readonly<Record<string, InstrumentKind>>) => void
}) {
  const { t } = useTranslation()
  const [kinds, setKinds] = useState<Readonly<Record<string, InstrumentKind>>>({})
  return (
    <Stack sx={{ gap: 1.25 }} role="group" aria-label={t('tableIn.instruments')}>
      <Typography sx={{ fontWeight: 600 }}>{t('tableIn.instruments')}</Typography>
      {names.map((name) => (
        <TextField
          key={name}
          select
          size="small"
          label={name}
          value={kinds[name] ?? ''}
          onChange={(event) => setKinds({ ...kinds, [name]: event.target.value as InstrumentKind })}
          sx={{ maxWidth: 420 }}
        >
          {INSTRUMENT_KINDS.map((kind) => (
            <MenuItem key={kind} value={kind}>
              {t(`instrument.${kind}`)}
            </MenuItem>
          ))}
        </TextField>
      ))}
      <Button
        variant="outlined"
        disabled={busy || Object.keys(kinds).length === 0}
        onClick={() => onSay(kinds)}
        sx={{ alignSelf: 'flex-start' }}
      >
        {t('imports.useColumns')}
      </Button>
    </Stack>
  )
}
