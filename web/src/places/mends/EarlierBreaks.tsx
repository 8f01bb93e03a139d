import { Box, Button, Typography } from '@mui/material'
import { useTranslation } from 'react-i18next'
import { Link } from 'react-router'
import type { Mend } from '@pelrin/contract'
import { day } from '../../messages/format.ts'

/** Breaks before: a chain that broke once tells something of the next. */
export function EarlierBreaks({ mends, bikeId }: { mends: readonly Mend[]; bikeId: string }) {
  const { t } = useTranslation()
  if (mends.length === 0) return null
  return (
    <Box component="section" aria-label={t('mends.before')}>
      <Typography variant="h3" component="h2" color="textSecondary">
        {t('mends.before')}
      </Typography>
      {mends.some(({ option }) => option !== null) && (
        <Button component={Link} to={`/bikes/${bikeId}/sheets/rider`} variant="outlined" sx={{ my: 0.5 }}>
          {t('mends.sheet')}
        </Button>
      )}
      {mends.map((mend) => (
        <Typography key={mend.id}>
          {t('mends.was', {
            date: day(mend.at),
            what: mend.option ? t('mends.wasMended', { left: mend.option.left }) : t('mends.wasReplaced'),
            cause: t(`mends.causeOf.${mend.cause}`),
            person: mend.person,
          })}
        </Typography>
      ))}
    </Box>
  )
}
