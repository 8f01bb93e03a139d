import { PULLEY_GRADES, type ToothGrade } from '@pelrin/core'
import { pulleyDrawing, teethDrawing } from '@pelrin/drawn'
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

/** A pulley as it looks from the drive side: its teeth wear in a shape of their own. */
export function PulleyDrawing({ grade, label }: { grade: ToothGrade; label: string }) {
  const { width, height, shapes } = pulleyDrawing(PULLEY_GRADES.find((one) => one === grade) ?? 'as-new')
  return (
    <svg viewBox={`0 0 ${width} ${height}`} width="100%" role="img" aria-label={label} style={{ display: 'block' }}>
      <DrawnShapes shapes={shapes} />
    </svg>
  )
}
