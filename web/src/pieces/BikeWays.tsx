import { Stack } from '@mui/material'
import { useMemo } from 'react'
import { useTranslation } from 'react-i18next'
import { Link, useNavigate } from 'react-router'
import type { LetterKeys } from '../keys/typing.tsx'
import { KeyButton } from './KeyButton.tsx'

/** What can be done about a bike: its key, its address, its words. */
const WAYS = [
  { letter: 'j', to: 'job', label: 'place.job' },
  { letter: 'p', to: 'parts', label: 'bike.parts' },
  { letter: 't', to: 'care', label: 'caring.title', intoField: true },
  { letter: 's', to: 'chains', label: 'chains.title', intoField: true },
  { letter: 'k', to: 'distance', label: 'forecast.toDistance' },
  { letter: 'o', to: 'other-wear', label: 'otherWear.title' },
  { letter: 'x', to: 'mend', label: 'mends.title' },
  { letter: 'h', to: 'sheets/customer', label: 'sheet.short' },
] as const

/** The keys that lead from a bike to everything about it; none without one. */
export function useBikeWays(bikeId: string | undefined): LetterKeys {
  const navigate = useNavigate()
  return useMemo(
    () =>
      bikeId === undefined
        ? {}
        : Object.fromEntries(
            WAYS.map(({ letter, to, ...way }) => [
              letter,
              { run: () => void navigate(`/bikes/${bikeId}/${to}`), intoField: 'intoField' in way },
            ]),
          ),
    [bikeId, navigate],
  )
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
      {WAYS.map(({ letter, to, label }) => (
        <KeyButton
          cap={letter.toUpperCase()}
          key={letter}
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
