import { Box, ButtonBase } from '@mui/material'
import { useTranslation } from 'react-i18next'
import { Link } from 'react-router'
import { KeyCap } from '../../pieces/KeyCap.tsx'
import { ink } from '../../theme/theme.ts'

export type PartsTab = 'bike' | 'catalogue' | 'orders'

/** What Parts is made of: this bike's, the shop's, and what is on its way. */
export function PartsTabs({ now, bikeId }: { now: PartsTab; bikeId: string | undefined }) {
  const { t } = useTranslation()
  const query = bikeId === undefined ? '' : `?bike=${bikeId}`
  const tabs: readonly (readonly [PartsTab, string | null, string])[] = [
    ['bike', bikeId === undefined ? null : `/bikes/${bikeId}/parts`, ''],
    ['catalogue', `/catalogue${query}`, 'L'],
    ['orders', `/orders${query}`, ''],
  ]
  return (
    <Box
      component="nav"
      aria-label={t('place.parts')}
      sx={{ display: 'flex', flexWrap: 'wrap', borderBottom: 1, borderColor: 'divider' }}
    >
      {tabs.map(
        ([tab, to, letter]) =>
          to !== null && (
            <ButtonBase
              key={tab}
              component={Link}
              to={to}
              aria-current={tab === now ? 'page' : undefined}
              sx={{
                minHeight: 48,
                px: 1.75,
                gap: 1,
                font: 'inherit',
                fontWeight: 600,
                fontSize: 'size.text',
                color: tab === now ? 'text.primary' : 'primary.main',
                boxShadow: tab === now ? `inset 0 -3px ${ink('steel')}` : 'none',
              }}
            >
              {t(`parts.tab.${tab}`)}
              {letter !== '' && now === 'bike' && <KeyCap>{letter}</KeyCap>}
            </ButtonBase>
          ),
      )}
    </Box>
  )
}
