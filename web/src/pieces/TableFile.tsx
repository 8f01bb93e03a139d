import { Alert, Button, LinearProgress, Stack, Typography } from '@mui/material'
import { useRef } from 'react'
import { useTranslation } from 'react-i18next'

/** Where a table is chosen, how far it is read, and what stands in its way. */
export function TableFile({
  name,
  busy,
  wrong,
  onChoose,
  onStop,
}: {
  name: string | undefined
  busy: boolean
  wrong: string | null
  onChoose: (file: File) => void
  onStop: () => void
}) {
  const { t } = useTranslation()
  const input = useRef<HTMLInputElement>(null)
  return (
    <>
      <Stack direction="row" sx={{ gap: 1.5, alignItems: 'center' }}>
        <Button variant="outlined" disabled={busy} onClick={() => input.current?.click()}>
          {t('tableIn.file')}
        </Button>
        <Typography>{name ?? ''}</Typography>
        <input
          ref={input}
          type="file"
          hidden
          accept=".csv,.tsv,.txt,text/csv"
          aria-label={t('tableIn.file')}
          onChange={(event) => {
            const chosen = event.target.files?.[0]
            event.target.value = ''
            if (chosen) onChoose(chosen)
          }}
        />
      </Stack>
      {busy && (
        <Stack direction="row" sx={{ gap: 2, alignItems: 'center' }}>
          <LinearProgress aria-label={t('tableIn.reading')} sx={{ flex: 1 }} />
          <Button onClick={onStop}>{t('app.cancel')}</Button>
        </Stack>
      )}
      {wrong !== null && <Alert severity="error">{wrong}</Alert>}
    </>
  )
}
