import { Box, Stack, Typography } from '@mui/material'
import { useTranslation } from 'react-i18next'
import { isWaxed } from '@pelrin/core'
import type { BikeCare, EventDate } from '@pelrin/contract'
import { day, distance } from '../../messages/format.ts'
import { KeyButton } from '../../pieces/KeyButton.tsx'
import { ink } from '../../theme/theme.ts'
import { DatedLine } from './DatedLine.tsx'
import { useMay } from '../../keys/useCommands.ts'

/** Days a bike is wanted for, and what its chain needs before each. */
export function WantedDays({
  care,
  unit,
  busy,
  onAdd,
  onDrop,
}: {
  care: BikeCare
  unit: 'km' | 'mi'
  busy: boolean
  onAdd: () => void
  onDrop: (id: string) => void
}) {
  const { t } = useTranslation()
  const may = useMay()
  const waxed = care.chain !== null && isWaxed(care.chain.care)
  const needs = ({ care: before }: EventDate): string => {
    if (!before) return t('caring.wanted.unknown')
    const said = before.word === 'treat' && waxed ? 'treat-waxed' : before.word
    return t(`caring.wanted.${said}`, { date: day(before.by), km: distance(care.firstRideKm, unit) })
  }
  return (
    <Box component="section" aria-labelledby="wanted-days" sx={{ pt: 1 }}>
      <Stack direction="row" sx={{ gap: 2, alignItems: 'baseline' }}>
        <Typography id="wanted-days" variant="h3" component="h2" color="textSecondary" sx={{ flex: 1 }}>
          {t('caring.wanted.title')}
        </Typography>
        <KeyButton of="care.wanted" onClick={onAdd} sx={{ px: 1 }}>
          {t('caring.wanted.add')}
        </KeyButton>
      </Stack>
      {care.eventDates.length === 0 && (
        <Typography variant="body2" color="textSecondary">
          {t('caring.wanted.none')}
        </Typography>
      )}
      <Box component="ul" aria-label={t('caring.wanted.title')} sx={{ listStyle: 'none', m: 0, p: 0 }}>
        {care.eventDates.map((date) => (
          <DatedLine
            key={date.id}
            on={date.day}
            back={t('caring.wanted.drop')}
            busy={busy}
            may={may({ right: 'customers' })}
            onBack={() => onDrop(date.id)}
          >
            <Typography variant="body2">
              <strong>{date.name}</strong>
              <Box component="span" sx={date.care?.word === 'treat' ? { color: ink('brass'), fontWeight: 600 } : {}}>
                {`: ${needs(date)}`}
              </Box>
            </Typography>
          </DatedLine>
        ))}
      </Box>
    </Box>
  )
}
