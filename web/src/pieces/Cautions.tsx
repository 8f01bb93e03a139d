import { Stack, Typography } from '@mui/material'
import WarningIcon from '@mui/icons-material/WarningAmberOutlined'
import { useTranslation } from 'react-i18next'
import type { Hazard } from '@pelrin/core'
import { ink } from '../theme/theme.ts'

const BAND = { gap: 1.5, borderLeft: `6px solid ${ink('madder')}`, bgcolor: 'background.paper', px: 1.5, py: 0.75 }

/** What can hurt, each said once: quiet above a list of steps, loud at the one that is being done. */
export function Cautions({ hazards, loud = false }: { hazards: readonly Hazard[]; loud?: boolean }) {
  const { t } = useTranslation()
  return (
    <>
      {[...new Set(hazards)].map((hazard) => (
        <Stack key={hazard} direction="row" role="note" sx={{ alignItems: 'center', ...(loud ? BAND : { gap: 0.75 }) }}>
          <WarningIcon sx={{ color: ink('madder'), ...(!loud && { fontSize: 'size.lead' }) }} />
          <Typography
            variant={loud ? 'body1' : 'body2'}
            sx={{ fontWeight: 600, ...(loud && { fontSize: 'size.lead' }) }}
          >
            {t(`jobs.hazard.${hazard}`)}
          </Typography>
        </Stack>
      ))}
    </>
  )
}
