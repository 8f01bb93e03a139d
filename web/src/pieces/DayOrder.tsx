import { FormControlLabel, Radio, RadioGroup, Typography, Box } from '@mui/material'
import { useId } from 'react'
import { useTranslation } from 'react-i18next'
import type { DaysWritten } from '@pelrin/contract'
import { day } from '../messages/format.ts'

/** Which day a cell such as 05-06-2026 is, read one way or the other. */
function readAs(cell: string, dayFirst: boolean): string {
  const [, first = '', second = '', year = ''] = /^(\d{1,2})[./-](\d{1,2})[./-](\d{4})/.exec(cell) ?? []
  const [date, month] = dayFirst ? [first, second] : [second, first]
  return day(`${year}-${month.padStart(2, '0')}-${date.padStart(2, '0')}`)
}

/** Asks, by the file's own cells, whether the day or the month stands first; where the file tells it, says so. */
export function DayOrder({
  days,
  dayFirst,
  onSay,
}: {
  days: DaysWritten
  dayFirst: boolean | undefined
  onSay: (dayFirst: boolean) => void
}) {
  const { t } = useTranslation()
  const labelId = useId()
  const [example] = days.examples
  if (days.order !== null && dayFirst === undefined)
    return (
      <Typography variant="body2" color="textSecondary">
        {t(`tableIn.order.${days.order}`)}
      </Typography>
    )
  return (
    <Box>
      <Typography id={labelId} sx={{ fontWeight: 600 }}>
        {t('tableIn.whichDay', { cells: days.examples.join(', ') })}
      </Typography>
      <RadioGroup
        aria-labelledby={labelId}
        value={dayFirst ?? ''}
        onChange={(_, said) => onSay(said === 'true')}
        sx={{ flexDirection: 'row' }}
      >
        {[true, false].map((first) => (
          <FormControlLabel
            key={String(first)}
            value={first}
            control={<Radio />}
            label={
              example === undefined
                ? t(`tableIn.order.${first ? 'day-first' : 'month-first'}`)
                : t('tableIn.dayIs', { cell: example, day: readAs(example, first) })
            }
          />
        ))}
      </RadioGroup>
    </Box>
  )
}
