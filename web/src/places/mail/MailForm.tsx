import { Box, Stack } from '@mui/material'
import { useQueryClient } from '@tanstack/react-query'
import { useTranslation } from 'react-i18next'
import { endpoints, MAIL_SECURITIES, type MailSettings } from '@pelrin/contract'
import { ask } from '../../api/client.ts'
import { keys } from '../../api/queries.ts'
import { useSurroundings } from '../../app/surroundings.ts'
import { Choice } from '../../forms/Choice.tsx'
import { Flag } from '../../forms/Flag.tsx'
import { FormFoot } from '../../forms/FormFoot.tsx'
import { FormOf } from '../../forms/FormOf.tsx'
import { Line } from '../../forms/Line.tsx'
import { asTyped, numberWanted, textIn } from '../../forms/typed.ts'
import { useWriteForm } from '../../forms/useWriteForm.ts'

type Security = MailSettings['security']

/** The settings as they are typed. Where nothing is set yet, what is likely is offered. */
const typedOf = (mail: MailSettings, shop: string) => ({
  on: mail.version === 0 || mail.on,
  host: mail.host,
  port: asTyped(mail.port),
  security: mail.security,
  userName: asTyped(mail.userName),
  password: '',
  forget: false,
  fromName: mail.fromName === '' ? shop : mail.fromName,
  fromAddress: mail.fromAddress,
  publicAddress: mail.publicAddress === '' ? window.location.origin : mail.publicAddress,
})
type Typed = ReturnType<typeof typedOf>

/** By which server mail goes, and as whom. A password typed once is kept, and never shown. */
export function MailForm({ mail, shop }: { mail: MailSettings; shop: string }) {
  const { t } = useTranslation()
  const client = useQueryClient()
  const { tell } = useSurroundings()
  const form = useWriteForm({
    access: endpoints.changeMail.access,
    schema: endpoints.changeMail.body,
    start: typedOf(mail, shop),
    read: ({ port, userName, password, forget, ...rest }: Typed) => ({
      ...rest,
      port: numberWanted(port),
      userName: textIn(userName),
      ...(forget ? { password: null } : password === '' ? {} : { password }),
    }),
    version: mail.version,
    newerOf: (newer: MailSettings) => ({ version: newer.version, typed: typedOf(newer, shop) }),
    send: (body, { version }) => ask(endpoints.changeMail, { version, body }),
    done: (written) => {
      client.setQueryData(keys.mail, written)
      void client.invalidateQueries({ queryKey: keys.messages })
      tell(t(written.on ? 'mail.saved' : 'mail.savedOff'))
    },
  })
  return (
    <FormOf form={form} label={t('rules.tab.mail')}>
      <Stack sx={{ gap: 1 }}>
        <Flag name="on" label={t('mail.on')} />
        <Box
          sx={{
            display: 'grid',
            gridTemplateColumns: { xs: 'minmax(0, 1fr)', sm: 'minmax(0, 1fr) 120px minmax(0, 1fr)' },
            gap: 1.5,
          }}
        >
          <Line name="host" label={t('mail.host')} longest={253} autoFocus={mail.version === 0} />
          <Line name="port" label={t('mail.port')} of="whole" longest={5} />
          <Choice
            name="security"
            label={t('mail.security')}
            options={MAIL_SECURITIES.map((one: Security) => [one, t(`mail.securities.${one}`)])}
          />
        </Box>
        <Box sx={{ display: 'grid', gridTemplateColumns: { xs: 'minmax(0, 1fr)', sm: '1fr 1fr' }, gap: 1.5 }}>
          <Line name="userName" label={t('mail.userName')} hint={t('mail.userNameHint')} longest={200} />
          <Line
            name="password"
            label={t('mail.password')}
            hint={t(mail.hasPassword ? 'mail.passwordKept' : 'mail.passwordHint')}
            of="password"
            autoComplete="new-password"
            longest={500}
          />
          <Line name="fromName" label={t('mail.fromName')} longest={80} />
          <Line name="fromAddress" label={t('mail.fromAddress')} longest={120} />
        </Box>
        {mail.hasPassword && <Flag name="forget" label={t('mail.forget')} />}
        <Line name="publicAddress" label={t('mail.publicAddress')} hint={t('mail.publicAddressHint')} longest={200} />
        <FormFoot form={form} go={t('app.save')} />
      </Stack>
    </FormOf>
  )
}
