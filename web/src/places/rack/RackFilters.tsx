import { Box, Stack, ToggleButton, ToggleButtonGroup } from '@mui/material'
import { useTranslation } from 'react-i18next'
import { RackState } from '@pelrin/contract'
import { ChoiceField } from '../../pieces/ChoiceField.tsx'
import { SearchField } from '../../pieces/SearchField.tsx'
import type { RackList } from './useRackPlace.ts'

/** Which bikes are listed: by a word, by how they stand, by their drive. */
export function RackFilters({ filters, state, drive, drives, list }: RackList) {
  const { t } = useTranslation()
  return (
    <Stack direction="row" data-no-print sx={{ gap: 1.5, flexWrap: 'wrap', mb: 1.25, alignItems: 'center' }}>
      <SearchField label={t('rack.filter')} width={262} text={filters.text} onText={filters.setText} />
      <ToggleButtonGroup
        exclusive
        color="primary"
        value={state ?? 'all'}
        aria-label={t('rack.verdict')}
        onChange={(_, value: string | null) => filters.set({ state: value === 'all' ? null : value })}
        sx={{ flexWrap: 'wrap' }}
      >
        {(['all', ...RackState.options] as const).map((option) => (
          <ToggleButton key={option} value={option} sx={{ gap: 1 }}>
            {option === 'all' ? t('rack.all') : t(`rack.state.${option}`)}
            <Box component="span" sx={{ fontWeight: 500, opacity: 0.85 }}>
              {list.first?.counts[option] ?? ''}
            </Box>
          </ToggleButton>
        ))}
      </ToggleButtonGroup>
      <ChoiceField
        label={t('rack.drive')}
        none={t('rack.anyDrive')}
        value={drive}
        options={drives}
        said={(kind) => t(`driveKind.${kind}`)}
        onChoose={(kind) => filters.set({ drive: kind })}
        width={150}
      />
    </Stack>
  )
}
