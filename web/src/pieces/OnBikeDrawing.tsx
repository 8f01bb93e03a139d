import { Box } from '@mui/material'
import type { OnBikeLook, OnBikeWay } from '@pelrin/core'
import { onBikeDrawing } from '@pelrin/drawn'
import { DrawnShapes } from './DrawnShapes.tsx'

/** A chain tried on the bike, as it looks at one length. */
export function OnBikeDrawing({ way, look, label }: { way: OnBikeWay; look: OnBikeLook; label: string }) {
  const { width, height, shapes } = onBikeDrawing(way, look)
  return (
    <Box
      component="svg"
      role="img"
      aria-label={label}
      viewBox={`0 0 ${width} ${height}`}
      sx={{ width: 220, display: 'block', strokeLinecap: 'round' }}
    >
      <DrawnShapes shapes={shapes} />
    </Box>
  )
}
