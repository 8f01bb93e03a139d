import type { ToothGrade } from '@pelrin/core'
import { teethDrawing } from '@pelrin/drawn'
import { DrawnShapes } from './DrawnShapes.tsx'

/** Three teeth as they look from the drive side, to be held beside the real ones. */
export function ToothDrawing({ grade, label }: { grade: ToothGrade; label: string }) {
  const { width, height, shapes } = teethDrawing(grade)
  return (
    <svg viewBox={`0 0 ${width} ${height}`} width="100%" role="img" aria-label={label} style={{ display: 'block' }}>
      <DrawnShapes shapes={shapes} />
    </svg>
  )
}
