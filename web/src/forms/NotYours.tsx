import { Typography } from '@mui/material'
import { useTranslation } from 'react-i18next'

/** Stands where a button to send would, for whoever may not. */
export function NotYours() {
  const { t } = useTranslation()
  return (
    <Typography variant="body2" color="text.secondary">
      {t('form.notYours')}
    </Typography>
  )
}
