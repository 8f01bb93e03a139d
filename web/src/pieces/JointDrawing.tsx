import { Box } from '@mui/material'
import { ink } from '../theme/theme.ts'

/** What a chain can be closed with, as it is told by looking. */
export type JointLook = 'link' | 'pin' | 'riveted' | 'clip'

const PITCH = 52
const MIDDLE = 44
const FINE = 1.6
const HEAVY = 3

/** A link's plate from the side: two round ends and a waist between, from one pin to the next. */
function plate(x: number, radius: number, waist: number): string {
  const to = x + PITCH
  return [
    `M${x} ${MIDDLE - radius}`,
    `C${x + 16} ${MIDDLE - radius} ${x + 16} ${MIDDLE - waist} ${x + PITCH / 2} ${MIDDLE - waist}`,
    `S${to - 16} ${MIDDLE - radius} ${to} ${MIDDLE - radius}`,
    `A${radius} ${radius} 0 0 1 ${to} ${MIDDLE + radius}`,
    `C${to - 16} ${MIDDLE + radius} ${to - 16} ${MIDDLE + waist} ${x + PITCH / 2} ${MIDDLE + waist}`,
    `S${x + 16} ${MIDDLE + radius} ${x} ${MIDDLE + radius}`,
    `A${radius} ${radius} 0 0 1 ${x} ${MIDDLE - radius} Z`,
  ].join(' ')
}

/** A run of chain from the side with the joint in its middle, as drawn for telling one from another. */
export function JointDrawing({ joint, label }: { joint: JointLook; label: string }) {
  const pins = [0, 1, 2, 3].map((i) => 26 + i * PITCH)
  const [, left = 0, right = 0] = pins
  return (
    <Box
      component="svg"
      role="img"
      aria-label={label}
      viewBox="0 0 208 88"
      sx={{ width: '100%', display: 'block', strokeLinejoin: 'round', strokeLinecap: 'round' }}
    >
      {/* Inner links to either side, behind the outer one that is looked at. */}
      {[pins[0]!, pins[2]!].map((x) => (
        <path key={x} d={plate(x, 18, 12)} fill={ink('blade')} stroke={ink('edge')} strokeWidth={FINE} />
      ))}
      <path
        d={plate(left, 20, 13)}
        fill={ink('sheet')}
        stroke={ink('edge')}
        strokeWidth={joint === 'riveted' ? FINE : HEAVY}
      />
      {pins.map((x, i) => (
        <circle key={i} cx={x} cy={MIDDLE} r={7} fill={ink('paper')} stroke={ink('edge')} strokeWidth={FINE} />
      ))}
      {joint === 'link' && (
        <>
          {/* Each pin sits in the narrow end of a hole it came in through at the wide one. */}
          <path
            d={`M${left} ${MIDDLE - 8} A8 8 0 1 0 ${left} ${MIDDLE + 8} L${left + 12} ${MIDDLE + 8} A8 8 0 0 0 ${left + 12} ${MIDDLE - 8} Z`}
            fill="none"
            stroke={ink('steel')}
            strokeWidth={HEAVY}
          />
          <path
            d={`M${right} ${MIDDLE - 8} A8 8 0 1 1 ${right} ${MIDDLE + 8} L${right - 12} ${MIDDLE + 8} A8 8 0 0 1 ${right - 12} ${MIDDLE - 8} Z`}
            fill="none"
            stroke={ink('steel')}
            strokeWidth={HEAVY}
          />
        </>
      )}
      {joint === 'pin' && (
        <>
          <circle cx={right} cy={MIDDLE} r={9.5} fill={ink('edge')} stroke={ink('edge')} strokeWidth={FINE} />
          <circle cx={right} cy={MIDDLE} r={3} fill={ink('paper')} />
          {/* The others are flared into a cross of dents. */}
          {[pins[0]!, left, pins[3]!].map((x) => (
            <path
              key={x}
              d={`M${x - 3} ${MIDDLE} H${x + 3} M${x} ${MIDDLE - 3} V${MIDDLE + 3}`}
              stroke={ink('edge')}
              strokeWidth={FINE}
            />
          ))}
        </>
      )}
      {joint === 'riveted' &&
        pins.map((x) => (
          <path
            key={x}
            d={`M${x - 3} ${MIDDLE} H${x + 3} M${x} ${MIDDLE - 3} V${MIDDLE + 3}`}
            stroke={ink('edge')}
            strokeWidth={FINE}
          />
        ))}
      {joint === 'clip' && (
        <path
          d={`M${right + 15} ${MIDDLE - 9} C${right + 4} ${MIDDLE - 18} ${right - 8} ${MIDDLE - 13} ${left + 26} ${MIDDLE - 12}
             C${left + 8} ${MIDDLE - 16} ${left - 14} ${MIDDLE - 16} ${left - 14} ${MIDDLE}
             C${left - 14} ${MIDDLE + 16} ${left + 8} ${MIDDLE + 16} ${left + 26} ${MIDDLE + 12}
             C${right - 8} ${MIDDLE + 13} ${right + 4} ${MIDDLE + 18} ${right + 15} ${MIDDLE + 9}`}
          fill="none"
          stroke={ink('steel')}
          strokeWidth={HEAVY}
        />
      )}
    </Box>
  )
}
