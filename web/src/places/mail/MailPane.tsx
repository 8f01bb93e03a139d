import { Stack, Typography } from '@mui/material'
import { useQuery } from '@tanstack/react-query'
import { useTranslation } from 'react-i18next'
import { endpoints, may, type MailSettings } from '@pelrin/contract'
import { ask } from '../../api/client.ts'
import { keys } from '../../api/queries.ts'
import { useSurroundings } from '../../app/surroundings.ts'
import { ago } from '../../messages/format.ts'
import { Failure, Loading } from '../../pieces/States.tsx'
import { ink } from '../../theme/theme.ts'
import { MailForm } from './MailForm.tsx'
import { MailTrial } from './MailTrial.tsx'

/** By which server the shop's mail goes, and whether it does. */
export function MailPane() {
  const { t } = useTranslation()
  const { session } = useSurroundings()
  const isOwner = may(session.person.role, 'owner')
  const mail = useQuery({
    queryKey: keys.mail,
    queryFn: ({ signal }) => ask(endpoints.mail, { signal }),
    enabled: isOwner,
  })
  if (!isOwner) return <Typography>{t('mail.owner')}</Typography>
  if (mail.isPending) return <Loading />
  if (!mail.data) return <Failure error={mail.error} again={() => void mail.refetch()} />
  return <Set mail={mail.data} shop={session.shop.name} />
}

function Set({ mail, shop }: { mail: MailSettings; shop: string }) {
  const { t } = useTranslation()
  return (
    <Stack sx={{ gap: 2, maxWidth: 820 }}>
      <Typography color="textSecondary">{t('mail.note')}</Typography>
      {mail.trouble && (
        <Typography role="alert" sx={{ color: ink('madder'), fontWeight: 600 }}>
          {t('mail.trouble', { ago: ago(mail.trouble.at), said: mail.trouble.said })}
        </Typography>
      )}
      <MailForm key={mail.version} mail={mail} shop={shop} />
      {mail.version > 0 && <MailTrial from={mail.fromAddress} />}
    </Stack>
  )
}
