import { Box } from '@mui/material'
import { useTranslation } from 'react-i18next'
import { useParams } from 'react-router'
import { useSurroundings } from '../../app/surroundings.ts'
import { ChainPane } from './ChainPane.tsx'
import { useTitle } from '../../pieces/useTitle.ts'

/** A chain by itself, wherever it is. */
export function ChainPlace() {
  const { t } = useTranslation()
  const { id = '' } = useParams()
  const { session } = useSurroundings()
  useTitle(t('chains.page'))
  return (
    <Box sx={{ px: 2.75, py: 1.75, maxWidth: 760 }}>
      <ChainPane id={id} unit={session.shop.distanceUnit} />
    </Box>
  )
}
