import { Typography } from '@mui/material'
import { useTranslation } from 'react-i18next'
import type { TableGuess } from '@pelrin/contract'

const SIGNS: Readonly<Record<string, 'comma' | 'semicolon' | 'tab'>> = { ',': 'comma', ';': 'semicolon', '\t': 'tab' }

/** What was guessed of how a table is written, to be seen before anything of it is believed. */
export function TableWritten({ written: { encoding, delimiter } }: { written: TableGuess }) {
  const { t } = useTranslation()
  const sign = SIGNS[delimiter]
  return (
    <Typography variant="body2" color="textSecondary">
      {t('tableIn.written', {
        encoding: encoding.toUpperCase(),
        sign: sign ? t(`tableIn.sign.${sign}`) : `“${delimiter}”`,
      })}
    </Typography>
  )
}
