import { Box } from '@mui/material'
import { useTranslation } from 'react-i18next'
import { useTitle } from '../../pieces/useTitle.ts'
import { FirstDay } from './FirstDay.tsx'

/** What an empty shop opens on, at an address of its own. */
export function FirstDayPlace() {
  const { t } = useTranslation()
  useTitle(t('firstDay.next'))
  return (
    <Box sx={{ px: 2.75, py: 2 }}>
      <FirstDay />
    </Box>
  )
}
