import { Button, Typography } from '@mui/material'
import { useTranslation } from 'react-i18next'
import { endpoints, type Welcome } from '@pelrin/contract'
import { ask } from '../../api/client.ts'
import { RefusedElsewhere } from '../../forms/FormFoot.tsx'
import { FormOf } from '../../forms/FormOf.tsx'
import { useWriteForm } from '../../forms/useWriteForm.ts'
import { SecretFields } from '../people/SecretFields.tsx'
import { pinIn } from '../people/pinIn.ts'
import { useEnter } from './useEnter.ts'

/** Somebody's first time, or the way back: a password and a PIN of their own. */
export function ChooseSecrets({ token, welcome: { kind, shop, person } }: { token: string; welcome: Welcome }) {
  const { t } = useTranslation()
  const entered = useEnter('/')
  const form = useWriteForm({
    access: endpoints.enter.access,
    schema: endpoints.enter.body,
    start: { password: '', pin: '' },
    read: ({ password, pin }) => ({ token, password, ...pinIn(pin) }),
    send: (body) => ask(endpoints.enter, { body }),
    done: entered,
  })
  return (
    <FormOf form={form} label={t('welcome.title')} sx={{ display: 'grid', gap: 1, maxWidth: 480 }}>
      <Typography variant="h1">
        {t(kind === 'way-back' ? 'welcome.way-back' : 'welcome.invited', { name: person.name, shop: shop.name })}
      </Typography>
      <Typography color="textSecondary" sx={{ mb: 1 }}>
        {t('welcome.signIn', { name: person.signInName, role: t(`role.${person.role}`) })}
      </Typography>
      <SecretFields autoFocus />
      <RefusedElsewhere form={form} />
      <Button type="submit" variant="contained" disabled={form.busy} sx={{ minHeight: 56 }}>
        {t('welcome.comeIn')}
      </Button>
    </FormOf>
  )
}
