import { Box, Typography } from '@mui/material'
import { useTranslation } from 'react-i18next'
import { Link } from 'react-router'
import type { ShopDue } from '@pelrin/contract'
import { useDiaryYear } from '../../api/queries.ts'
import { day, locale } from '../../messages/format.ts'
import { ink } from '../../theme/theme.ts'

const monthOf = (month: string): string =>
  new Intl.DateTimeFormat(locale(), { month: 'short', timeZone: 'UTC' }).format(new Date(`${month}-01T00:00:00Z`))

/** What the shop itself has to see to, and how many bikes fall due in each month of a year. */
export function ShopsOwn({ items }: { items: readonly ShopDue[] }) {
  const { t } = useTranslation()
  const year = useDiaryYear()
  const most = Math.max(1, ...(year.data?.months ?? []).map(({ bikes }) => bikes))
  const words = ({ kind, name, on, overdue }: ShopDue): string =>
    kind === 'bath'
      ? t('diary.bath', { name })
      : t(overdue ? 'diary.instrumentOver' : 'diary.instrument', { name, date: on === null ? '' : day(on) })
  return (
    <>
      {items.length > 0 && (
        <Box component="section" aria-labelledby="shops-own" sx={{ pt: 1 }}>
          <Typography id="shops-own" variant="h3" component="h2" color="textSecondary">
            {t('diary.ofShop')}
          </Typography>
          <Box component="ul" sx={{ listStyle: 'none', m: 0, p: 0 }}>
            {items.map((item) => (
              <Box component="li" key={item.id} sx={{ borderTop: 1, borderColor: 'divider' }}>
                <Typography
                  component={Link}
                  to={item.kind === 'bath' ? '/pot' : `/gauges/${item.id}`}
                  sx={{
                    display: 'flex',
                    alignItems: 'center',
                    minHeight: 48,
                    ...(item.overdue ? { color: ink('brass'), fontWeight: 700 } : { color: 'text.primary' }),
                  }}
                >
                  {words(item)}
                </Typography>
              </Box>
            ))}
          </Box>
        </Box>
      )}
      {year.data && (
        <Box component="section" aria-labelledby="year-ahead" sx={{ pt: 1 }}>
          <Typography id="year-ahead" variant="h3" component="h2" color="textSecondary" sx={{ pb: 0.5 }}>
            {t('diary.year')}
          </Typography>
          <Box
            component="ol"
            sx={{ listStyle: 'none', m: 0, p: 0, display: 'flex', alignItems: 'flex-end', gap: '4px' }}
          >
            {year.data.months.map(({ month, bikes }) => (
              <Box
                component="li"
                key={month}
                sx={{ flex: 1, textAlign: 'center' }}
                aria-label={t('diary.yearLine', { month: monthOf(month), count: bikes })}
              >
                <Typography component="span" sx={{ display: 'block', fontSize: 'size.cap' }}>
                  {bikes}
                </Typography>
                <Box
                  sx={{
                    bgcolor: ink('steel'),
                    opacity: 0.6,
                    height: `${Math.round((bikes / most) * 46)}px`,
                    minHeight: 1,
                  }}
                />
                <Typography component="span" sx={{ display: 'block', fontSize: 'size.cap', color: 'text.secondary' }}>
                  {monthOf(month)}
                </Typography>
              </Box>
            ))}
          </Box>
        </Box>
      )}
    </>
  )
}
