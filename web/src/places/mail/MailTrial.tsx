import { Box, Stack, Typography } from '@mui/material'
import { useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import { endpoints, type MailFared } from '@pelrin/contract'
import { ask } from '../../api/client.ts'
import { keys } from '../../api/queries.ts'
import { FormFoot } from '../../forms/FormFoot.tsx'
import { FormOf } from '../../forms/FormOf.tsx'
import { Line } from '../../forms/Line.tsx'
import { useWriteForm } from '../../forms/useWriteForm.ts'
import { ink } from '../../theme/theme.ts'

/** A message sent at once to try the settings, and what the mail server said. */
export function MailTrial({ from }: { from: string }) {
  const { t } = useTranslation()
  const client = useQueryClient()
  const [fared, setFared] = useState<MailFared | null>(null)
  const form = useWriteForm({
    access: endpoints.tryMail.access,
    schema: endpoints.tryMail.body,
    start: { to: from },
    read: (typed: { to: string }) => typed,
    send: (body) => ask(endpoints.tryMail, { body }),
    done: (told) => {
      setFared(told)
      void client.invalidateQueries({ queryKey: keys.mail })
    },
  })
  return (
    <Box component="section" aria-label={t('mail.trial')}>
      <Typography variant="h2" sx={{ mb: 1 }}>
        {t('mail.trial')}
      </Typography>
      <FormOf form={form} label={t('mail.trial')}>
        <Stack sx={{ gap: 1, flexDirection: { sm: 'row' }, alignItems: { sm: 'flex-start' } }}>
          <Line name="to" label={t('mail.trialTo')} longest={120} sx={{ flex: 1, width: '100%' }} />
          <FormFoot form={form} go={t(form.busy ? 'mail.trialGoing' : 'mail.trialGo')} />
        </Stack>
      </FormOf>
      {fared && !form.busy && (
        <Box role="status">
          <Typography sx={{ fontWeight: 700, color: fared.fared === 'taken' ? 'text.primary' : ink('madder') }}>
            {t(`mail.fared.${fared.fared}`)}
          </Typography>
          {fared.said !== null && <Typography color="textSecondary">{t('mail.said', { said: fared.said })}</Typography>}
        </Box>
      )}
    </Box>
  )
}
