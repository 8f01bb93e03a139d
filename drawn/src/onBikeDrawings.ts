import type { OnBikeLook, OnBikeWay } from '@pelrin/core'
import { arrow, circle, path } from './hand.ts'
import type { Drawing, Shape } from './shapes.ts'

const chain = (d: string): Shape => path(d, { stroke: 'steel', width: 4 })
const ring = (x: number, y: number, r: number): Shape[] => [circle(x, y, r), circle(x, y, 4, 'edge')]
/** A derailleur's cage from its upper pulley, turned so far forward. */
function cage(forward: number): { shapes: Shape[]; upper: [number, number]; lower: [number, number] } {
  const upper: [number, number] = [222, 92]
  const angle = Math.PI / 2 + forward
  const lower: [number, number] = [upper[0] + 40 * Math.cos(angle), upper[1] + 40 * Math.sin(angle)]
  return {
    shapes: [
      path(`M${upper[0]} ${upper[1]}L${Math.round(lower[0])} ${Math.round(lower[1])}`, { stroke: 'line', width: 14 }),
      circle(upper[0], upper[1], 8),
      circle(lower[0], lower[1], 8),
    ],
    upper,
    lower,
  }
}

/** What is seen when a chain of a length is held on the two largest without the derailleur. */
const wrapped = (look: OnBikeLook): Shape[] => [
  ...ring(62, 62, 40),
  ...ring(222, 66, 32),
  chain('M62 22L222 34A32 32 0 0 1 222 98'),
  ...(look === 'slack'
    ? [chain('M222 98C180 128 120 132 62 102'), path('M132 122l12 0', { stroke: 'brass', width: 6 })]
    : look === 'right'
      ? [chain('M222 98L62 102'), path('M136 100l14 0', { stroke: 'brass', width: 6 })]
      : [chain('M222 98L168 99'), chain('M116 101L62 102'), arrow(168, 116, 150, 116), arrow(116, 116, 134, 116)]),
]

const throughIt = (way: 'threaded' | 'smallest', look: OnBikeLook): Shape[] => {
  const large = way === 'threaded'
  const [front, rear] = large ? [40, 30] : [24, 14]
  // On the largest two the cage is pulled forward, on the smallest it hangs back or lifts.
  const turned = large
    ? { slack: 0.15, right: 0.8, strained: 1.35 }[look]
    : { slack: -0.9, right: -0.35, strained: 0.4 }[look]
  const { shapes, upper, lower } = cage(turned)
  const sag = !large && look === 'slack' ? 34 : large && look === 'slack' ? 12 : 0
  const [lx, ly] = [Math.round(lower[0]), Math.round(lower[1])]
  return [
    ...ring(62, 62, front),
    ...ring(222, 44, rear),
    ...shapes,
    chain(`M62 ${62 - front}L222 ${44 - rear}A${rear} ${rear} 0 0 1 222 ${44 + rear}L${upper[0] + 7} ${upper[1]}`),
    chain(`M${upper[0] - 7} ${upper[1]}L${lx + 7} ${ly}`),
    chain(`M${lx} ${ly + 8}C${lx - 50} ${ly + 8 + sag} 120 ${62 + front + sag} 62 ${62 + front}`),
  ]
}

/** A chain tried on the bike: how it looks at a length that is too long, right, or too short. */
export const onBikeDrawing = (way: OnBikeWay, look: OnBikeLook): Drawing => ({
  width: 270,
  height: 150,
  shapes: way === 'wrapped' ? wrapped(look) : throughIt(way, look),
})
