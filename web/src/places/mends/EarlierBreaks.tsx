import { Box, Button, Typography } from '@mui/material'
import { useTranslation } from 'react-i18next'
import { Link } from 'react-router'
import { day } from '../../messages/format.ts'
import { KeyButton } from '../../pieces/KeyButton.tsx'
import type { Mending } from './useMendBench.ts'

/** Breaks before: a chain that broke once tells something of the next. */
export function EarlierBreaks({ known: { mends }, bikeId, short, setAdding }: Mending) {
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
      {short && (
        <KeyButton of="mend.addBack" variant="outlined" sx={{ my: 0.5, ml: 1 }} onClick={() => setAdding(short)}>
          {t('mends.addBack')}
        </KeyButton>
      )}
      {mends.map((mend) => (
        <Typography key={mend.id}>
          {t('mends.was', {
            date: day(mend.at),
            what: mend.option ? t('mends.wasMended', { left: mend.option.left }) : t('mends.wasReplaced'),
            cause: t(`mends.causeOf.${mend.cause}`),
            person: mend.person,
          })}
          {mend.roadside && ` ${t('mends.wasRoadside')}`}
          {mend.addedBackAt !== null && ` ${t('mends.wasAdded', { date: day(mend.addedBackAt) })}`}
        </Typography>
      ))}
    </Box>
  )
}
