import { ink } from '../theme/theme.ts'

/** How every chart draws its axes. */
export const CHART_AXIS = {
  stroke: ink('faint'),
  tick: { fill: ink('faint'), fontSize: 13 },
  tickLine: { stroke: ink('faint') },
}
