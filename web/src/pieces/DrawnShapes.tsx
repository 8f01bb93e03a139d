import type { InkName, Shape } from '@pelrin/drawn'
import { ink } from '../theme/theme.ts'

/**
 * Shapes of a drawing as the screen draws them.
 *
 * @param own the colour of what the drawing says, such as a verdict's
 */
export function DrawnShapes({ shapes, own = 'currentColor' }: { shapes: readonly Shape[]; own?: string }) {
  const colourOf = (name: InkName): string => (name === 'own' ? own : ink(name))
  return shapes.map((shape, i) => {
    if (shape.kind === 'text')
      return (
        <text
          key={i}
          x={shape.x}
          y={shape.y}
          fontSize={shape.size}
          fontWeight={600}
          textAnchor={shape.anchor}
          fill={colourOf(shape.fill)}
        >
          {shape.text}
        </text>
      )
    const inked = {
      fill: shape.fill === undefined ? 'none' : colourOf(shape.fill),
      ...(shape.stroke === undefined ? {} : { stroke: colourOf(shape.stroke), strokeWidth: shape.width ?? 1 }),
      ...(shape.opacity === undefined ? {} : { opacity: shape.opacity }),
    }
    if (shape.kind === 'circle') return <circle key={i} cx={shape.cx} cy={shape.cy} r={shape.r} {...inked} />
    if (shape.kind === 'rect')
      return <rect key={i} x={shape.x} width={shape.w} y={shape.y} height={shape.h} rx={shape.r} {...inked} />
    return (
      <path
        key={i}
        d={shape.d}
        {...inked}
        {...(shape.evenOdd === true ? { fillRule: 'evenodd' as const } : {})}
        {...(shape.dash === undefined ? {} : { strokeDasharray: shape.dash.join(' ') })}
        {...(shape.round === true ? { strokeLinejoin: 'round' as const } : {})}
      />
    )
  })
}
