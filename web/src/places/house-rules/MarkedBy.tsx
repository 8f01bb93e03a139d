import { MenuItem, TextField } from '@mui/material'
import { useTranslation } from 'react-i18next'
import { useInstruments } from '../../api/queries.ts'
import { percent } from '../../messages/format.ts'

/** Whose change mark decides, where a rule goes as marked. */
export function MarkedBy({ value, onChange }: { value: string; onChange: (instrumentId: string) => void }) {
  const { t } = useTranslation()
  const instruments = useInstruments()
  return (
    <TextField select label={t('rules.markedBy')} value={value} onChange={(event) => onChange(event.target.value)}>
      {instruments.data
        ?.filter((one) => one.changeMark !== null)
        .map((one) => (
          <MenuItem key={one.id} value={one.id}>
            {one.name} ({percent(one.changeMark ?? 0)} %)
          </MenuItem>
        ))}
    </TextField>
  )
}
