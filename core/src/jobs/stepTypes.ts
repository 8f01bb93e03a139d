import { inOrder } from './order.ts'

export type StepPhase = 'before' | 'off' | 'clean' | 'prepare' | 'cut' | 'route' | 'join' | 'check' | 'ride' | 'end'

/** What can hurt at a step. Each has its caution in the message catalogue. */
export const HAZARDS = [
  'motor',
  'spring',
  'fingers',
  'solvent',
  'heat',
  'scald',
  'rotor',
  'failure',
  'metal',
  'pressure',
] as const
export type Hazard = (typeof HAZARDS)[number]

/** What is taken up at a step. Each has its name in the message catalogue. */
export const TOOLS = [
  'stand',
  'rule',
  'link-pliers',
  'pin-tool',
  'clip-pliers',
  'hook',
  'gloves',
  'cloth',
  'brush',
  'degreaser',
  'wax-pot',
  'oil',
  'axle-spanner',
  'cassette-tools',
  'paper',
  'thread',
  'cleaning-box',
  'ultrasonic-bath',
  'wax-remover',
  'air',
  'bar',
  'timer',
  'screwdriver',
] as const
export type Tool = (typeof TOOLS)[number]

/** Something typed or chosen that a step stands for: it is not done by a tick. */
export type StepAsk = 'old-count' | 'way' | 'size' | 'new-count' | 'click' | 'baseline'

/** One entry of a table of steps: when it applies, and what it wants. */
export interface StepRule<Plan, Id extends string> {
  readonly id: Id
  readonly phase: StepPhase
  readonly when: (plan: Plan) => boolean
  readonly minutes: number
  /** Minutes nothing can be done but wait, once it is begun. */
  readonly waits?: (plan: Plan) => number | null
  readonly tools?: (plan: Plan) => readonly Tool[]
  readonly hazards?: (plan: Plan) => readonly Hazard[]
  readonly values?: (plan: Plan) => Readonly<Record<string, string | number>>
  /** Something to be seen or felt before it is done. */
  readonly checked?: boolean
  readonly asks?: StepAsk
}

/** One step as it is shown: its words are keys of the message catalogue under its id. */
export interface Step<Id extends string> {
  readonly id: Id
  readonly phase: StepPhase
  readonly tools: readonly Tool[]
  readonly hazards: readonly Hazard[]
  /** Standard minutes. */
  readonly minutes: number
  /** Minutes it waits by itself: for drying, hanging, creeping in. Null where it does not. */
  readonly waits: number | null
  /** Values its words name; `context` picks among the ways it is said. */
  readonly values: Readonly<Record<string, string | number>>
  /** Whether there is something to be seen or felt before it is done. */
  readonly checked: boolean
  /** What has to be entered for it to be done; null: it is ticked. */
  readonly asks: StepAsk | null
}

/** The steps of a table that apply to a plan, in an order that works. */
export function stepsBy<Plan, Id extends string>(rules: readonly StepRule<Plan, Id>[], plan: Plan): Step<Id>[] {
  const steps = rules
    .filter(({ when }) => when(plan))
    .map(({ id, phase, tools, hazards, minutes, waits, values, checked = false, asks = null }): Step<Id> => ({
      id,
      phase,
      tools: tools?.(plan) ?? [],
      hazards: hazards?.(plan) ?? [],
      minutes,
      waits: waits?.(plan) ?? null,
      values: values?.(plan) ?? {},
      checked,
      asks,
    }))
  return inOrder(steps)
}

/** A table of steps about something that is part of a larger plan. */
export const lifted = <Plan, Part, Id extends string>(
  rules: readonly StepRule<Part, Id>[],
  of: (plan: Plan) => Part,
  goes: (plan: Plan) => boolean,
): StepRule<Plan, Id>[] =>
  rules.map(({ when, waits, tools, hazards, values, ...rule }) => ({
    ...rule,
    when: (plan) => goes(plan) && when(of(plan)),
    ...(waits && { waits: (plan: Plan) => waits(of(plan)) }),
    ...(tools && { tools: (plan: Plan) => tools(of(plan)) }),
    ...(hazards && { hazards: (plan: Plan) => hazards(of(plan)) }),
    ...(values && { values: (plan: Plan) => values(of(plan)) }),
  }))
