import { HAZARDS, homeSteps, toolsOf, TREATMENTS, waxingAsUsual, type Assumptions } from '@pelrin/core'
import type { BikeCare, SheetBlock } from '@pelrin/contract'
import { drawnAt } from '@pelrin/drawn'
import type { Words } from './words.ts'

/** Everything a sheet of one's own steps is written from. */
export interface ForHome {
  readonly care: BikeCare
  readonly assumed: Assumptions
}

/** What a rider does about the chain at home: how often, with what, step by step with drawings, and what can hurt. */
export function homeSheet(words: Words, { care, assumed }: ForHome): SheetBlock[] {
  const { chain, handling, next, rhythm } = care
  const treatment = TREATMENTS.find((one) => one === chain?.care)
  if (!chain || !handling || !treatment) return [{ kind: 'text', text: words.t('sheet.home.unknown'), strong: true }]
  const steps = homeSteps({
    care: treatment,
    before: chain.care,
    wet: care.wet,
    handling,
    // At home it is a sealed bag in hot water, or a pot of one's own.
    waxing: waxingAsUsual(care.waxing, assumed.pot, { vessel: 'bag', heatMinutes: assumed.pot.heatMinutes }),
  })
  const text = (line: string, strong = false): SheetBlock => ({ kind: 'text', text: line, strong })
  const heading = (line: string): SheetBlock => ({ kind: 'heading', text: line })
  const hazards = HAZARDS.filter((hazard) => steps.some((step) => step.hazards.includes(hazard)))
  return [
    text(words.t('sheet.home.intro')),
    ...(next ? [text(words.t('sheet.home.due', { day: words.day(next.dueOn) }), true)] : []),
    ...(['care', 'wash', 'look'] as const).flatMap((what) => {
      const count = rhythm[what]
      return count === null ? [] : [text(words.t(`sheet.home.every.${what}`, { count }))]
    }),
    heading(words.t('sheet.home.tools')),
    text(words.listed(toolsOf(steps).map((tool) => words.t(`sheet.tool.${tool}`)))),
    heading(words.t('sheet.home.steps')),
    ...steps.map(({ id, values, waits }, i): SheetBlock => {
      const said = { ...values, position: words.t('sheet.home.upright') }
      const what = words.t(`steps.${id}.what`, said)
      const drawn = drawnAt(id, values)
      return {
        kind: 'step',
        number: i + 1,
        drawn,
        what: waits === null ? what : words.t('sheet.home.waits', { what, count: waits }),
        why: words.t(`steps.${id}.why`, said),
      }
    }),
    ...(treatment === 'immersion-wax' ? [text(words.t('sheet.afterWax'))] : []),
    text(words.t('sheet.home.done'), true),
    heading(words.t('sheet.cautions')),
    { kind: 'list', items: [...hazards, 'makers'].map((one) => words.t(`sheet.caution.${one}`)) },
  ]
}
