import { Button, Dialog, DialogActions, DialogContent, DialogTitle, TextField } from '@mui/material'
import { useState, type ReactNode } from 'react'
import { useTranslation } from 'react-i18next'
import type { QueryKey } from '@tanstack/react-query'
import { useWrite, wrongAt } from '../api/useWrite.ts'

/** Asks why something is done, and does it: what is not to be done by a slip wants a reason. */
export function ReasonDialog({
  title,
  go,
  ready = true,
  stale = [],
  onClose,
  onReason,
  children,
}: {
  title: string
  go: string
  /** False while something above the reason is still to be chosen. */
  ready?: boolean
  /** What is asked for anew before it closes. */
  stale?: readonly QueryKey[]
  onClose: () => void
  /** May throw a ProblemError, whose sentence is then shown. */
  onReason: (reason: string) => Promise<void>
  children?: ReactNode
}) {
  const { t } = useTranslation()
  const [reason, setReason] = useState('')
  const { wrong, setWrong, busy, write } = useWrite({ stale })
  const submit = async (): Promise<void> => {
    if (busy || !ready) return
    if (reason.trim() === '') setWrong(wrongAt({ reason: t('problems.text-missing') }))
    else if (await write(() => onReason(reason.trim()).then(() => true))) onClose()
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
            helperText={wrong?.sentence ?? ' '}
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
