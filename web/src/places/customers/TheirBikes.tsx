import { Box, Link, Stack, Typography } from '@mui/material'
import { useTranslation } from 'react-i18next'
import { Link as RouterLink } from 'react-router'
import type { CustomerPage } from '@pelrin/contract'
import { day } from '../../messages/format.ts'

/** Their bikes: those they have, then those that went to somebody else. */
export function TheirBikes({ bikes }: { bikes: CustomerPage['bikes'] }) {
  const { t } = useTranslation()
  return (
    <Box component="section" aria-label={t('customer.bikes')}>
      <Typography variant="h2" sx={{ mb: 0.5 }}>
        {t('customer.bikes')}
      </Typography>
      {bikes.length === 0 && <Typography color="textSecondary">{t('customer.noBikes')}</Typography>}
      {bikes.map(({ id, label, kind, tag, now, cameAt, wentAt, goneOn }) => (
        <Stack
          key={id}
          direction="row"
          sx={{
            gap: 2,
            borderTop: 1,
            borderColor: 'divider',
            alignItems: 'center',
            minHeight: 48,
            opacity: now ? 1 : 0.7,
          }}
        >
          <Link component={RouterLink} to={`/bikes/${id}`} sx={{ fontWeight: 700, flex: 1, py: 1.25 }}>
            {label}
          </Link>
          <Typography color="textSecondary">
            {[
              kind,
              t('find.tag', { tag }),
              goneOn === null ? null : t('customer.goneOn', { day: day(goneOn) }),
              cameAt === null ? null : t('customer.came', { day: day(cameAt) }),
              wentAt === null ? null : t('customer.went', { day: day(wentAt) }),
            ]
              .filter((one) => one !== null)
              .join(', ')}
          </Typography>
        </Stack>
      ))}
    </Box>
  )
}
