import { Box, Button } from '@mui/material'
import { useTranslation } from 'react-i18next'
import { TREATMENTS } from '@pelrin/core'
import { distance } from '../../messages/format.ts'
import { KeyCap } from '../../pieces/KeyCap.tsx'
import type { CareView } from './useCarePlace.ts'
import { useMay } from '../../keys/useCommands.ts'

/** Each treatment with how long it lasts on this bike: pressed, it is written down. */
export function TreatmentList({ care, unit, usual, busy, treat, setChosen }: CareView) {
  const { t } = useTranslation()
  const may = useMay()
  return (
    <Box
      component="ol"
      aria-label={t('caring.record')}
      sx={{
        listStyle: 'none',
        m: 0,
        p: 0,
        display: 'grid',
        gridTemplateColumns: { xs: 'minmax(0, 1fr)', sm: 'minmax(0, 1fr) minmax(0, 1fr)' },
        gap: 1,
      }}
    >
      {TREATMENTS.map((one, i) => (
        <li key={one}>
          <Button
            fullWidth
            variant={one === usual ? 'contained' : 'outlined'}
            disabled={busy || !may({ right: 'record' })}
            onClick={() => treat(one)}
            onFocus={() => setChosen(one)}
            onMouseEnter={() => setChosen(one)}
            sx={{ minHeight: 60, justifyContent: 'flex-start', gap: 1.5, textAlign: 'left' }}
          >
            <KeyCap>{String(i + 1)}</KeyCap>
            <span>
              <Box component="span" sx={{ display: 'block', fontWeight: 700, fontSize: 'size.lead', lineHeight: 1.2 }}>
                {t(`care.${one}`)}
                {one === usual && `, ${t('caring.usual')}`}
              </Box>
              <Box component="span" sx={{ display: 'block', fontWeight: 400, fontSize: 'size.note' }}>
                {t('caring.lasts', {
                  km: distance(care.intervals[one].km, unit),
                  days: care.intervals[one].days,
                })}
              </Box>
            </span>
          </Button>
        </li>
      ))}
    </Box>
  )
}
