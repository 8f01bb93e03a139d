import { Box, Stack, Typography } from '@mui/material'
import { useQueryClient } from '@tanstack/react-query'
import { useTranslation } from 'react-i18next'
import { endpoints, may, type Session } from '@pelrin/contract'
import { ask } from '../../api/client.ts'
import { keys } from '../../api/queries.ts'
import { useSurroundings } from '../../app/surroundings.ts'
import { FormFoot } from '../../forms/FormFoot.tsx'
import { FormOf } from '../../forms/FormOf.tsx'
import { useWriteForm } from '../../forms/useWriteForm.ts'
import { ShopFields } from './ShopFields.tsx'
import { shopIn, shopTyped } from './typedShop.ts'

/** What the shop says of itself, changed by its owner. */
export function ShopPane() {
  const { t } = useTranslation()
  const { session } = useSurroundings()
  if (!may(session.person.role, 'owner')) return <Typography>{t('shop.owner')}</Typography>
  return <Changed key={session.shop.version} session={session} />
}

function Changed({ session: { shop } }: { session: Session }) {
  const { t } = useTranslation()
  const client = useQueryClient()
  const { tell } = useSurroundings()
  const { id: _id, version, ...settings } = shop
  const form = useWriteForm({
    access: endpoints.changeShop.access,
    schema: endpoints.changeShop.body,
    start: shopTyped(settings),
    read: shopIn,
    version,
    newerOf: (newer: Session['shop']) => {
      const { id: _, version: now, ...said } = newer
      return { version: now, typed: shopTyped(said) }
    },
    send: (body, { version: at }) => ask(endpoints.changeShop, { version: at, body }),
    done: () => {
      tell(t('shop.saved'))
      void client.invalidateQueries({ queryKey: keys.session })
    },
  })
  return (
    <FormOf form={form} label={t('rules.tab.shop')} sx={{ maxWidth: 820 }}>
      <Stack sx={{ gap: 1 }}>
        <ShopFields />
        <Box>
          <FormFoot form={form} go={t('shop.save')} />
        </Box>
      </Stack>
    </FormOf>
  )
}
