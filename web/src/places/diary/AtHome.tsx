import { Box, Button, Typography } from '@mui/material'
import { useTranslation } from 'react-i18next'
import { Link } from 'react-router'
import type { DueAtHome } from '@pelrin/contract'
import { day, today } from '../../messages/format.ts'
import { Allowed } from '../../pieces/Allowed.tsx'
import { ink } from '../../theme/theme.ts'

/** Chains that are treated at home: nobody is booked in for that, they are reminded. */
export function AtHome({ bikes, onRemind }: { bikes: readonly DueAtHome[]; onRemind: () => void }) {
  const { t } = useTranslation()
  if (bikes.length === 0) return null
  const unasked = bikes.filter(({ remindedAt }) => remindedAt === null).length
  return (
    <Box component="section" aria-labelledby="at-home" sx={{ pt: 1 }}>
      <Typography id="at-home" variant="h3" component="h2" color="textSecondary">
        {t('diary.atHome', { count: bikes.length })}
      </Typography>
      {unasked > 0 && (
        <Allowed right="messages">
          <Button variant="outlined" onClick={onRemind}>
            {t('diary.remindHome', { count: unasked })}
          </Button>
        </Allowed>
      )}
      <Box component="ul" sx={{ listStyle: 'none', m: 0, p: 0 }}>
        {bikes.map(({ customer, bike, on, care, remindedAt }) => (
          <Box component="li" key={bike.id} sx={{ borderTop: 1, borderColor: 'divider' }}>
            <Typography
              component={Link}
              to={`/bikes/${bike.id}/care`}
              sx={{ display: 'block', py: 1, color: on < today() ? ink('brass') : 'text.primary' }}
            >
              {customer.name}, {bike.label}: {t(`care.${care}`)} {day(on)}
              {remindedAt !== null && (
                <Box component="span" sx={{ color: 'text.secondary' }}>
                  {', '}
                  {t('diary.reminded', { date: day(remindedAt) })}
                </Box>
              )}
            </Typography>
          </Box>
        ))}
      </Box>
    </Box>
  )
}
