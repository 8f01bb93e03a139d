import { Box } from '@mui/material'
import { DndContext, PointerSensor, useDraggable, useSensor, useSensors } from '@dnd-kit/core'
import { useTranslation } from 'react-i18next'
import { dragWords } from '../../pieces/dragWords.ts'
import type { ChainPlan, Span } from '@pelrin/core'
import type { PotChainNow, PotNow } from '@pelrin/contract'
import { clock } from '../../messages/format.ts'
import { ink } from '../../theme/theme.ts'
import { ofBike } from './shortName.ts'
import type { TimedPlan } from '../../workers/usePotPlan.ts'
import { midnightBefore } from '../../messages/shopClock.ts'

const WIDTH = 860
const NAME = 200
const ROW = 40
const TOP = 34
const MINUTE = 60_000
/** Between numbered ticks, minutes, and the longest session they suit. */
const STEPS = [
  [15, 180],
  [30, 360],
  [60, 900],
  [240, Infinity],
] as const

/** A session at the pot over time: each chain's way, each pot's dips, what was promised, and now. */
export function PotTimeline({
  plan,
  pots,
  chains,
  chosenId,
  now,
  onChoose,
  onPin,
}: {
  plan: TimedPlan
  pots: readonly PotNow[]
  chains: readonly PotChainNow[]
  chosenId: string | undefined
  now: number
  onChoose: (id: string) => void
  /** A chain's dip was dragged to a moment. */
  onPin: (id: string, at: number) => void
}) {
  const { t } = useTranslation()
  const sensors = useSensors(useSensor(PointerSensor, { activationConstraint: { distance: 8 } }))
  const { from } = plan
  const ways = new Map(plan.plan.chains.map((way) => [way.id, way]))
  const starts = plan.plan.chains.flatMap(({ strip, dip, hang }) => [strip?.from ?? 0, dip?.from ?? 0, hang.from])
  const promised = chains.flatMap(({ readyBy }) => (readyBy === null ? [] : [(Date.parse(readyBy) - from) / MINUTE]))
  const first = Math.max(-90, Math.min(0, ...starts)) - 5
  // A promise far off does not squeeze everything else.
  const last = Math.max(60, plan.plan.finish, ...promised.filter((minute) => minute < plan.plan.finish * 1.6)) + 10
  const x = (minute: number): number => NAME + ((minute - first) / (last - first)) * (WIDTH - NAME - 8)
  const step = STEPS.find(([, most]) => last - first <= most)![0]
  const midnight = midnightBefore(from)
  const ticks: number[] = []
  for (let at = midnight; at <= from + last * MINUTE; at += step * MINUTE)
    if (at >= from + first * MINUTE) ticks.push((at - from) / MINUTE)
  const height = TOP + ROW * (chains.length + pots.length) + 8
  const rowOf = (i: number): number => TOP + ROW * (pots.length + i)
  return (
    <DndContext
      sensors={sensors}
      accessibility={dragWords(t('pot.pinByKeys'))}
      onDragEnd={({ active, delta }) => {
        const way = ways.get(String(active.id))
        const svg = document.getElementById('pot-timeline')
        if (!way?.dip || !svg) return
        const perMinute = (svg.clientWidth / WIDTH) * ((WIDTH - NAME - 8) / (last - first))
        onPin(way.id, from + Math.max(0, way.dip.from + delta.x / perMinute) * MINUTE)
      }}
    >
      <Box
        component="svg"
        id="pot-timeline"
        role="img"
        aria-label={t('pot.timeline')}
        viewBox={`0 0 ${WIDTH} ${height}`}
        sx={{ width: '100%', minWidth: 640, display: 'block', touchAction: 'pan-y' }}
      >
        <rect x={NAME} y={2} width={WIDTH - NAME - 8} height={TOP - 6} fill={ink('blade')} stroke={ink('edge')} />
        {ticks.map((minute) => (
          <g key={minute}>
            <line x1={x(minute)} x2={x(minute)} y1={TOP - 14} y2={TOP - 4} stroke={ink('edge')} />
            <line x1={x(minute)} x2={x(minute)} y1={TOP} y2={height} stroke={ink('line')} />
            {x(minute) < WIDTH - 44 && (
              <text x={x(minute) + 3} y={TOP - 15} fontSize={12.5} fill={ink('ink')}>
                {clock(new Date(from + minute * MINUTE).toISOString())}
              </text>
            )}
          </g>
        ))}
        {pots.map((pot, i) => (
          <g key={pot.id}>
            <text x={0} y={TOP + ROW * i + 24} fontSize={15} fontWeight={700} fill={ink('ink')}>
              {pot.name}
            </text>
            {plan.plan.dips.map((dip, number) =>
              dip.pot === pot.id ? (
                <g key={dip.load.from}>
                  <rect
                    x={x(dip.load.from)}
                    y={TOP + ROW * i + 6}
                    width={Math.max(2, x(dip.draw.to) - x(dip.load.from))}
                    height={ROW - 14}
                    fill={ink('steel')}
                  />
                  <text
                    x={(x(dip.load.from) + x(dip.draw.to)) / 2}
                    y={TOP + ROW * i + 24}
                    textAnchor="middle"
                    fontSize={14}
                    fontWeight={700}
                    fill={ink('paper')}
                  >
                    {number + 1}
                  </text>
                </g>
              ) : null,
            )}
          </g>
        ))}
        {chains.map((chain, i) => {
          const way = ways.get(chain.id)
          return (
            <g key={chain.id} onClick={() => onChoose(chain.id)} style={{ cursor: 'pointer' }}>
              <rect
                x={0}
                y={rowOf(i)}
                width={WIDTH}
                height={ROW}
                fill={chain.id === chosenId ? ink('sheet') : 'transparent'}
              />
              <line x1={0} x2={WIDTH} y1={rowOf(i)} y2={rowOf(i)} stroke={ink('line')} />
              {way && <ChainRow chain={chain} way={way} from={from} y={rowOf(i)} x={x} />}
              <text x={6} y={rowOf(i) + 17} fontSize={14} fontWeight={700} fill={ink('ink')}>
                {shortened(chain.bike?.customer ?? chain.chain, 26)}
              </text>
              <text x={6} y={rowOf(i) + 33} fontSize={12} fill={ink(way && way.late > 0 ? 'madder' : 'faint')}>
                {way && way.late > 0 ? t('pot.lateBy', { count: way.late }) : shortened(ofBike(chain), 34)}
              </text>
            </g>
          )
        })}
        <line
          x1={x((now - from) / MINUTE)}
          x2={x((now - from) / MINUTE)}
          y1={TOP - 6}
          y2={height}
          stroke={ink('madder')}
          strokeWidth={2}
        />
      </Box>
    </DndContext>
  )
}

const shortened = (text: string, most: number): string => (text.length > most ? `${text.slice(0, most - 1)}…` : text)

/** One chain: bath and drying in outline, the wax solid, the rail light, flexing last; its promise as a notch. */
function ChainRow({
  chain,
  way,
  from,
  y,
  x,
}: {
  chain: PotChainNow
  way: ChainPlan
  /** The moment the plan's minutes count from, ms. */
  from: number
  y: number
  x: (minute: number) => number
}) {
  const { attributes, listeners, setNodeRef, transform } = useDraggable({
    id: chain.id,
    disabled: way.dip === null || way.dip.from < 0,
  })
  const bar = (span: Span | null, look: object) =>
    span && (
      <rect x={x(span.from)} y={y + 9} width={Math.max(1.5, x(span.to) - x(span.from))} height={ROW - 18} {...look} />
    )
  const promise = chain.readyBy === null ? null : x((Date.parse(chain.readyBy) - from) / MINUTE)
  return (
    <>
      {bar(way.strip, { fill: ink('blade'), stroke: ink('edge') })}
      {bar(way.dry, { fill: 'none', stroke: ink('edge'), strokeDasharray: '3 3' })}
      <g
        ref={setNodeRef as unknown as (node: SVGGElement | null) => void}
        {...listeners}
        {...attributes}
        role="presentation"
        tabIndex={-1}
        transform={transform ? `translate(${transform.x} 0)` : undefined}
        style={{ cursor: 'grab', touchAction: 'none' }}
      >
        {bar(way.dip, { fill: ink('steel') })}
      </g>
      {bar(way.hang, { fill: ink('steel'), opacity: 0.28 })}
      {bar(way.flex, { fill: ink(way.late > 0 ? 'madder' : 'brass') })}
      {chain.notBefore !== null && way.dip && <circle cx={x(way.dip.from)} cy={y + 6} r={4} fill={ink('brass')} />}
      {promise !== null && (
        <path d={`M${promise - 7} ${y + 1} h14 l-7 12 z`} fill={ink(way.late > 0 ? 'madder' : 'ink')} />
      )}
    </>
  )
}
