import { Box, Button, Stack, Typography } from '@mui/material'
import { useTranslation } from 'react-i18next'
import { endpoints, type Welcome } from '@pelrin/contract'
import { ask } from '../../api/client.ts'
import { RefusedElsewhere } from '../../forms/FormFoot.tsx'
import { FormOf } from '../../forms/FormOf.tsx'
import { Line } from '../../forms/Line.tsx'
import { numberWanted } from '../../forms/typed.ts'
import { useWriteForm } from '../../forms/useWriteForm.ts'
import { pinIn } from '../people/pinIn.ts'
import { SecretFields } from '../people/SecretFields.tsx'
import { ShopFields } from '../shop/ShopFields.tsx'
import { initialsOf, shopIn, shopTyped, signInNameOf } from '../shop/typedShop.ts'
import { useFollows } from '../shop/useFollows.ts'
import { useEnter } from './useEnter.ts'

/** Work of one stand on one day, hours, offered at first. */
const HOURS_A_STAND = 6

/** The machine's zone; a machine that stands in a cellar keeps no zone of its own, and then the tablet's is nearer. */
const zoneOf = (machine: string): string =>
  machine === 'UTC' ? Intl.DateTimeFormat().resolvedOptions().timeZone : machine

/** The first day of a shop: what it is, and who owns it. Everything else can wait. */
export function FirstDayForm({ token, welcome: { shop } }: { token: string; welcome: Welcome }) {
  const { t } = useTranslation()
  const entered = useEnter('/first-day')
  const form = useWriteForm({
    access: endpoints.enter.access,
    schema: endpoints.enter.body,
    start: {
      password: '',
      pin: '',
      firstDay: {
        shop: { ...shopTyped({ ...shop, stands: 2, timeZone: zoneOf(shop.timeZone) }), name: '', code: '' },
        ...{ name: '', initials: '', signInName: '', dayMinutes: String(2 * HOURS_A_STAND) },
      },
    },
    read: ({ password, pin, firstDay }) => ({
      token,
      password,
      ...pinIn(pin),
      firstDay: {
        ...{ name: firstDay.name, initials: firstDay.initials, signInName: firstDay.signInName },
        shop: shopIn(firstDay.shop),
        dayMinutes: Math.round(60 * numberWanted(firstDay.dayMinutes)),
      },
    }),
    send: (body) => ask(endpoints.enter, { body }),
    done: entered,
  })
  return (
    <FormOf form={form} label={t('firstDay.title')}>
      <Typography variant="h1">{t('firstDay.title')}</Typography>
      <Typography color="textSecondary" sx={{ mb: 2 }}>
        {t('firstDay.lead')}
      </Typography>
      <Box
        sx={{
          display: 'grid',
          gridTemplateColumns: { xs: 'minmax(0, 1fr)', md: 'minmax(0, 1.9fr) minmax(0, 1fr)' },
          gap: { xs: 2, md: 5 },
        }}
      >
        <Box component="section" aria-labelledby="the-shop">
          <Typography id="the-shop" variant="h2" sx={{ mb: 1.5 }}>
            {t('firstDay.shop')}
          </Typography>
          <ShopFields at="firstDay.shop." autoFocus />
        </Box>
        <Stack component="section" aria-labelledby="the-owner" sx={{ gap: 0.5 }}>
          <Typography id="the-owner" variant="h2" sx={{ mb: 1 }}>
            {t('firstDay.you')}
          </Typography>
          <You />
          <SecretFields />
          <Line
            name="firstDay.dayMinutes"
            label={t('firstDay.dayTakes')}
            hint={t('firstDay.dayTakesHint')}
            of="number"
            unit={t('firstDay.hours')}
          />
          <RefusedElsewhere form={form} />
          <Button type="submit" variant="contained" disabled={form.busy} sx={{ minHeight: 56, mt: 1 }}>
            {t('firstDay.open')}
          </Button>
        </Stack>
      </Box>
    </FormOf>
  )
}

function You() {
  const { t } = useTranslation()
  useFollows('firstDay.name', 'firstDay.initials', initialsOf)
  useFollows('firstDay.name', 'firstDay.signInName', signInNameOf)
  return (
    <>
      <Line name="firstDay.name" label={t('people.name')} longest={80} autoComplete="name" />
      <Box sx={{ display: 'grid', gridTemplateColumns: '1fr 1.6fr', gap: 1.5 }}>
        <Line name="firstDay.initials" label={t('people.initials')} longest={4} />
        <Line name="firstDay.signInName" label={t('people.signInName')} longest={40} autoComplete="username" />
      </Box>
    </>
  )
}
