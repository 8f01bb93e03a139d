import { Box } from '@mui/material'
import { useTranslation } from 'react-i18next'
import { stepDrawing, type StepDrawing } from '@pelrin/drawn'
import { DrawnShapes } from './DrawnShapes.tsx'

/** One drawing of work at a chain, as wide as it is given room, and how the bike stands where that turns it. */
export function StepDrawn({
  drawn,
  width = 430,
  position = 'upright',
}: {
  drawn: StepDrawing
  width?: number
  position?: 'upright' | 'upside-down' | 'on-side'
}) {
  const { t } = useTranslation()
  const { width: wide, height, shapes } = stepDrawing(drawn)
  // Upside down is seen from the other way round; on its side a quarter turn.
  const turned = drawn !== 'cage-tab' || position === 'upright' ? 0 : position === 'upside-down' ? 180 : 90
  return (
    <Box
      component="svg"
      role="img"
      aria-label={t(`jobs.drawing.${drawn}`)}
      viewBox={`0 0 ${wide} ${height}`}
      sx={{ width: '100%', maxWidth: width, display: 'block', strokeLinecap: 'round' }}
    >
      <g transform={turned === 0 ? undefined : `rotate(${turned} ${wide / 2} ${height / 2})`}>
        <DrawnShapes shapes={shapes} />
      </g>
    </Box>
  )
}
