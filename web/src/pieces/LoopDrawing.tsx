import { Box } from '@mui/material'
import { useTranslation } from 'react-i18next'
import { pitchRadiusMm } from '@pelrin/core'
import { number } from '../messages/format.ts'
import { ink } from '../theme/theme.ts'

/**
 * The loop to scale: ring, sprocket, the chain over them, and what the derailleur takes up below.
 *
 * @param slackMm chain left over beside the loop, mm; drawn as the lower run's way round by the derailleur, when positive
 */
export function LoopDrawing({
  frontTeeth,
  rearTeeth,
  chainstayMm,
  slackMm,
}: {
  frontTeeth: number
  rearTeeth: number
  chainstayMm: number
  slackMm: number
}) {
  const { t } = useTranslation()
  const front = pitchRadiusMm(frontTeeth)
  const rear = pitchRadiusMm(rearTeeth)
  const margin = 14
  const left = rear + margin
  const middle = Math.max(front, rear) + margin
  const right = left + chainstayMm
  // Where the straight runs leave each circle: the angle both tangents have.
  const alpha = Math.asin((front - rear) / chainstayMm)
  const [sin, cos] = [Math.sin(alpha), Math.cos(alpha)]
  const top = { rear: [left - rear * sin, middle - rear * cos], front: [right - front * sin, middle - front * cos] }
  const below = { rear: [left - rear * sin, middle + rear * cos], front: [right - front * sin, middle + front * cos] }
  const [x1 = 0, y1 = 0] = below.rear
  const [x2 = 0, y2 = 0] = below.front
  const run = Math.hypot(x2 - x1, y2 - y1)
  // Two straight pieces to a point below, as long together as the run and what is left over.
  const drop = Math.max(0, slackMm)
  const legs = run + drop
  const share = 0.3
  const depth = drop === 0 ? 0 : deepest(run, legs, share)
  const corner = [x1 + (x2 - x1) * share, y1 + (y2 - y1) * share + depth]
  const height = Math.max(middle + Math.max(front, rear), corner[1]!) + margin
  const width = right + front + margin
  const at = (point: readonly number[]): string => `${point[0]!.toFixed(1)} ${point[1]!.toFixed(1)}`
  const bigFront = front >= rear ? 1 : 0
  return (
    <Box
      component="svg"
      role="img"
      aria-label={t('parts.drawing', {
        front: frontTeeth,
        rear: rearTeeth,
        mm: number(chainstayMm, 0),
        slack: number(slackMm / 12.7, 1),
      })}
      viewBox={`0 0 ${width.toFixed(0)} ${height.toFixed(0)}`}
      sx={{ width: '100%', maxHeight: 150, display: 'block' }}
    >
      {[
        [left, rear, rearTeeth],
        [right, front, frontTeeth],
      ].map(([x = 0, radius = 0, teeth = 0]) => (
        <g key={x}>
          <circle
            cx={x}
            cy={middle}
            r={radius}
            fill={ink('blade')}
            stroke={ink('edge')}
            strokeWidth={9}
            strokeDasharray={`${(Math.PI * radius) / teeth} ${(Math.PI * radius) / teeth}`}
          />
          <circle cx={x} cy={middle} r={6} fill={ink('ink')} />
          <text x={x} y={middle - 14} textAnchor="middle" fontSize={24} fontWeight={600} fill={ink('ink')}>
            {teeth}
          </text>
        </g>
      ))}
      <line x1={left} y1={middle} x2={right} y2={middle} stroke={ink('faint')} strokeWidth={2} strokeDasharray="8 8" />
      <text x={(left + right) / 2} y={middle + 24} textAnchor="middle" fontSize={22} fill={ink('faint')}>
        {number(chainstayMm, 0)} mm
      </text>
      <path
        d={`M${at(top.rear)} L${at(top.front)} A${front} ${front} 0 ${bigFront} 1 ${at(below.front)} L${at(corner)} L${at(below.rear)} A${rear} ${rear} 0 ${1 - bigFront} 1 ${at(top.rear)}`}
        fill="none"
        stroke={slackMm < 0 ? ink('madder') : ink('steel')}
        strokeWidth={6}
        strokeLinejoin="round"
        {...(slackMm < 0 ? { strokeDasharray: '18 12' } : {})}
      />
    </Box>
  )
}

/** How deep a point at a share of a run lies when two legs to it are so long together, by halving. */
function deepest(run: number, legs: number, share: number): number {
  let near = 0
  let far = legs
  while (far - near > 0.1) {
    const depth = (near + far) / 2
    if (Math.hypot(run * share, depth) + Math.hypot(run * (1 - share), depth) < legs) near = depth
    else far = depth
  }
  return near
}
