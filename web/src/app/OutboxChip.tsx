import { Box, Button, Dialog, DialogActions, DialogContent, DialogTitle, Stack, Typography } from '@mui/material'
import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import { useNavigate } from 'react-router'
import { endpoints } from '@pelrin/contract'
import { outbox, type Waiting } from '../outbox/outbox.ts'
import { useOutbox } from '../outbox/useOutbox.ts'
import { restoreDraft } from '../places/measure/draft.ts'
import { ink } from '../theme/theme.ts'

/** What can be corrected and sent again; what happened on a job is said anew there. */
const isReading = ({ path }: Waiting): boolean =>
  path === endpoints.takeReading.path || path === endpoints.correctReading.path

/** Says what has not reached the server yet, and lets a refused write be opened again. */
export function OutboxChip() {
  const { t } = useTranslation()
  const navigate = useNavigate()
  const waiting = useOutbox()
  const [open, setOpen] = useState(false)
  const [throwing, setThrowing] = useState<Waiting | null>(null)
  const refused = waiting.filter((write) => write.refused !== undefined)
  if (waiting.length === 0) return null
  return (
    <>
      <Button
        size="small"
        variant="outlined"
        color={refused.length > 0 ? 'error' : 'warning'}
        onClick={() => setOpen(true)}
        sx={{ minHeight: 40, whiteSpace: 'nowrap' }}
      >
        {refused.length > 0
          ? t('outbox.refused', { count: refused.length })
          : outbox.waitsForSignIn()
            ? t('session.kept', { count: waiting.length })
            : t('outbox.waiting', { count: waiting.length })}
      </Button>
      <Dialog open={open} onClose={() => setOpen(false)} fullWidth maxWidth="sm" aria-labelledby="outbox-title">
        <DialogTitle id="outbox-title">{t('outbox.title')}</DialogTitle>
        <DialogContent>
          {waiting.map((write) => (
            <Stack
              key={write.key}
              direction="row"
              sx={{ gap: 2, py: 1, borderTop: 1, borderColor: 'divider', alignItems: 'center' }}
            >
              <Box sx={{ flex: 1 }}>
                <Typography sx={{ fontWeight: 600 }}>{write.title}</Typography>
                {write.refused && (
                  <Typography variant="body2" sx={{ color: ink('madder') }}>
                    {write.refused.status >= 500
                      ? t('outbox.setAside')
                      : (write.refused.fields?.map((field) => field.detail).join(' ') ?? write.refused.detail)}
                  </Typography>
                )}
              </Box>
              {write.refused && (
                <>
                  {write.refused.status >= 500 && (
                    <Button onClick={() => void outbox.again(write.key)}>{t('outbox.again')}</Button>
                  )}
                  {isReading(write) && write.refused.status < 500 && (
                    <Button
                      onClick={() => {
                        restoreDraft(write)
                        void outbox.drop(write.key)
                        setOpen(false)
                        void navigate(`/bikes/${write.bikeId}/measure`)
                      }}
                    >
                      {t('outbox.open')}
                    </Button>
                  )}
                  <Button color="error" onClick={() => setThrowing(write)}>
                    {t('outbox.drop')}
                  </Button>
                </>
              )}
            </Stack>
          ))}
        </DialogContent>
      </Dialog>
      {throwing && (
        <Dialog open onClose={() => setThrowing(null)} aria-labelledby="throw-title">
          <DialogTitle id="throw-title">{t('outbox.sure', { what: throwing.title })}</DialogTitle>
          <DialogActions>
            <Button autoFocus onClick={() => setThrowing(null)}>
              {t('outbox.keep')}
            </Button>
            <Button
              color="error"
              onClick={() => {
                void outbox.drop(throwing.key)
                setThrowing(null)
              }}
            >
              {t('outbox.drop')}
            </Button>
          </DialogActions>
        </Dialog>
      )}
    </>
  )
}
