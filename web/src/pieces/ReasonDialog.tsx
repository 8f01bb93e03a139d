import { Button, Dialog, DialogActions, DialogContent, DialogTitle, TextField } from '@mui/material'
import { useState, type ReactNode } from 'react'
import { useTranslation } from 'react-i18next'
import { sentenceOf } from '../api/client.ts'

/** Asks why something is done, and does it: what is not to be done by a slip wants a reason. */
export function ReasonDialog({
  title,
  go,
  ready = true,
  onClose,
  onReason,
  children,
}: {
  title: string
  go: string
  /** False while something above the reason is still to be chosen. */
  ready?: boolean
  onClose: () => void
  /** May throw a ProblemError, whose sentence is then shown. */
  onReason: (reason: string) => Promise<void>
  children?: ReactNode
}) {
  const { t } = useTranslation()
  const [reason, setReason] = useState('')
  const [wrong, setWrong] = useState<string | null>(null)
  const [busy, setBusy] = useState(false)
  const submit = async (): Promise<void> => {
    if (busy || !ready) return
    if (reason.trim() === '') {
      setWrong(t('problems.text-missing'))
      return
    }
    setBusy(true)
    try {
      await onReason(reason.trim())
      onClose()
    } catch (error) {
      setWrong(sentenceOf(error) ?? t('app.notSaved'))
    } finally {
      setBusy(false)
    }
  }
  return (
    <Dialog open onClose={onClose} fullWidth maxWidth="sm" aria-labelledby="reason-title">
      <form
        noValidate
        onSubmit={(event) => {
          event.preventDefault()
          void submit()
        }}
      >
        <DialogTitle id="reason-title">{title}</DialogTitle>
        <DialogContent sx={{ display: 'grid', gap: 1.5 }}>
          {children}
          <TextField
            autoFocus
            label={t('rules.reason')}
            value={reason}
            onChange={(event) => {
              setReason(event.target.value)
              setWrong(null)
            }}
            error={wrong !== null}
            helperText={wrong ?? ' '}
            slotProps={{ inputLabel: { shrink: true }, htmlInput: { maxLength: 200 } }}
            sx={{ mt: 1 }}
          />
        </DialogContent>
        <DialogActions>
          <Button onClick={onClose}>{t('app.cancel')}</Button>
          <Button type="submit" variant="contained" disabled={busy || !ready}>
            {go}
          </Button>
        </DialogActions>
      </form>
    </Dialog>
  )
}
