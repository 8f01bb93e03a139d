import { Box, Typography } from '@mui/material'
import { useTranslation } from 'react-i18next'
import { ink } from '../../theme/theme.ts'

const SIGNS = [
  ['bath', <rect key="s" x={1} y={2} width={20} height={10} fill={ink('blade')} stroke={ink('edge')} />],
  ['dry', <rect key="s" x={1} y={2} width={20} height={10} fill="none" stroke={ink('edge')} strokeDasharray="3 3" />],
  ['wax', <rect key="s" x={1} y={2} width={20} height={10} fill={ink('steel')} />],
  ['rail', <rect key="s" x={1} y={2} width={20} height={10} fill={ink('steel')} opacity={0.28} />],
  ['flex', <rect key="s" x={7} y={2} width={8} height={10} fill={ink('brass')} />],
  ['wanted', <path key="s" d="M4 2h14l-7 11z" fill={ink('ink')} />],
  ['now', <line key="s" x1={11} x2={11} y1={0} y2={14} stroke={ink('madder')} strokeWidth={2} />],
] as const

/** What the signs of the timeline mean. */
export function TimelineLegend() {
  const { t } = useTranslation()
  return (
    <Box
      component="ul"
      sx={{ listStyle: 'none', m: 0, p: 0, py: 0.75, display: 'flex', flexWrap: 'wrap', columnGap: 2 }}
    >
      {SIGNS.map(([name, sign]) => (
        <Box component="li" key={name} sx={{ display: 'flex', alignItems: 'center', gap: 0.75 }}>
          <svg width={22} height={14} aria-hidden>
            {sign}
          </svg>
          <Typography variant="body2" color="textSecondary">
            {t(`pot.legend.${name}`)}
          </Typography>
        </Box>
      ))}
    </Box>
  )
}
