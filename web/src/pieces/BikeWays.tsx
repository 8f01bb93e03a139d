import { Stack } from '@mui/material'
import { useTranslation } from 'react-i18next'
import { Link, useNavigate } from 'react-router'
import type { Run } from '../keys/useCommands.ts'
import { KeyButton } from './KeyButton.tsx'

/** What can be done about a bike: its command, its address, its words. */
const WAYS = [
  { id: 'job', to: 'job', label: 'place.job' },
  { id: 'parts', to: 'parts', label: 'bike.parts' },
  { id: 'care', to: 'care', label: 'caring.title' },
  { id: 'chains', to: 'chains', label: 'chains.title' },
  { id: 'distance', to: 'distance', label: 'forecast.toDistance' },
  { id: 'otherWear', to: 'other-wear', label: 'otherWear.title' },
  { id: 'mend', to: 'mend', label: 'mends.title' },
  { id: 'sheet', to: 'sheets/customer', label: 'sheet.short' },
] as const
type Ways = Readonly<Record<(typeof WAYS)[number]['id'], Run | null>>

/** What leads from a bike to everything about it; nothing without one. */
export function useBikeWays(bikeId: string | undefined): Ways {
  const navigate = useNavigate()
  return Object.fromEntries(
    WAYS.map(({ id, to }) => [id, bikeId === undefined ? null : () => navigate(`/bikes/${bikeId}/${to}`)]),
  ) as Record<keyof Ways, Run | null>
}

/** The same as links, each with its key. */
export function BikeWays({ bikeId, stacked = false }: { bikeId: string; stacked?: boolean }) {
  const { t } = useTranslation()
  return (
    <Stack
      component="nav"
      aria-label={t('bike.ways')}
      direction={stacked ? 'column' : 'row'}
      sx={{ flexWrap: 'wrap', columnGap: 1.25, alignItems: stacked ? 'stretch' : 'center' }}
    >
      {WAYS.map(({ id, to, label }) => (
        <KeyButton
          key={id}
          of={`bike.${id}`}
          component={Link}
          to={`/bikes/${bikeId}/${to}`}
          sx={{
            px: 0.5,
            ...(stacked
              ? { justifyContent: 'space-between', borderTop: 1, borderColor: 'divider', borderRadius: 0 }
              : {}),
          }}
        >
          {t(label)}
        </KeyButton>
      ))}
    </Stack>
  )
}
