import { Box, ButtonBase, Typography } from '@mui/material'
import { useTranslation } from 'react-i18next'
import type { CatalogueLine } from '@pelrin/contract'
import { ink } from '../../theme/theme.ts'
import { priceText, speedsText } from '../parts/partLook.ts'
import { ROW_PX } from './useCataloguePlace.ts'

/** One part in the list. */
export function PartRow({
  part,
  top,
  chosen,
  onChoose,
}: {
  part: CatalogueLine
  top: number
  chosen: boolean
  onChoose: () => void
}) {
  const { t } = useTranslation()
  const { kind, maker, name, speeds, price, stock, kept, onOrder, low } = part
  const standing = [
    ...(kept > 0 ? [t('catalogue.keptCount', { count: kept })] : []),
    ...(onOrder > 0 ? [t('catalogue.comingCount', { count: onOrder })] : []),
  ]
  return (
    <ButtonBase
      role="option"
      aria-selected={chosen}
      tabIndex={-1}
      onClick={onChoose}
      sx={{
        position: 'absolute',
        top,
        left: 0,
        right: 0,
        height: ROW_PX,
        px: 1,
        gap: 1.5,
        justifyContent: 'flex-start',
        textAlign: 'left',
        font: 'inherit',
        borderTop: 1,
        borderColor: 'divider',
        boxShadow: chosen ? `inset 4px 0 ${ink('steel')}` : 'none',
        bgcolor: chosen ? ink('blade') : 'transparent',
      }}
    >
      <Box sx={{ flex: 1, minWidth: 0 }}>
        <Typography component="span" noWrap sx={{ display: 'block', fontWeight: chosen ? 700 : 600, lineHeight: 1.2 }}>
          {maker} {name}
        </Typography>
        <Typography
          component="span"
          variant="body2"
          noWrap
          color="textSecondary"
          sx={{ display: 'block', lineHeight: 1.2 }}
        >
          {t(`catalogue.kind.${kind}`)}
          {speeds.length > 0 && `, ${speedsText(speeds, t)}`}
        </Typography>
      </Box>
      <Box sx={{ textAlign: 'right', flexShrink: 0 }}>
        <Typography component="span" sx={{ display: 'block', lineHeight: 1.2 }}>
          {priceText(price, t)}
        </Typography>
        <Typography
          component="span"
          variant="body2"
          sx={{
            display: 'block',
            lineHeight: 1.2,
            color: low ? ink('madder') : 'text.secondary',
            fontWeight: low ? 600 : 400,
          }}
        >
          {[stock === 0 ? t('parts.stockNone') : t('parts.stock', { count: stock }), ...standing].join(', ')}
        </Typography>
      </Box>
    </ButtonBase>
  )
}
