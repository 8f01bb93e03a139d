import { plateDrawing, type PlateShape } from '@pelrin/drawn'
import { DrawnShapes } from './DrawnShapes.tsx'

/** A verdict's shape, at any size. It stands beside its word, so it has no name of its own unless one is given. */
export function Plate({
  shape,
  colour,
  height,
  title,
}: {
  shape: PlateShape
  colour: string
  height: number
  title?: string
}) {
  return (
    <svg
      viewBox="0 0 32 16"
      width={height * 2}
      height={height}
      style={{ flexShrink: 0, overflow: 'visible' }}
      {...(title === undefined ? { 'aria-hidden': true } : { role: 'img', 'aria-label': title })}
    >
      <DrawnShapes shapes={plateDrawing(shape).shapes} own={colour} />
    </svg>
  )
}
