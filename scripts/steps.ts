import { readFileSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import {
  careSteps,
  CLEANINGS,
  COMES_BEFORE,
  fittingSteps,
  JOB_OUTCOMES,
  addingBack,
  MEND_JOINTS,
  mendOptions,
  mendSteps,
  POSITIONS,
  POT_RECIPES,
  SHIPPED_SCHOOLS,
  TREATMENTS,
  WAX_FINISHES,
  type CareJob,
  type Hazard,
  type JobDrive,
  type JobPlan,
  type JobSchools,
  type MendJob,
  type StepPhase,
  type Tool,
} from '@pelrin/core'
import { drawnAt } from '@pelrin/drawn'
import { jobs } from '../web/src/messages/en/jobs.ts'
import { steps as words } from '@pelrin/contract/messages'

const FILE = join(import.meta.dirname, '../docs/steps.md')

type Words = Readonly<Record<string, string>>
const WORDS = words as Readonly<Record<string, Words>>

/** What a step wants and can hurt by, over every plan it is part of. */
interface Told {
  readonly phase: StepPhase
  readonly tools: Set<Tool>
  readonly hazards: Set<Hazard>
  checked: boolean
}

const DRIVE: JobDrive = {
  type: 'derailleur',
  motor: true,
  guide: 'front-derailleur',
  wideNarrow: true,
  clutch: true,
  cageLock: false,
  discBrake: true,
  timing: false,
  speeds: 8,
}
const DRIVES: readonly JobDrive[] = [
  DRIVE,
  { ...DRIVE, cageLock: true },
  { ...DRIVE, type: 'hub-gear' },
  { ...DRIVE, timing: true },
]
const PRESENT: readonly NonNullable<JobPlan['present']>[] = [
  { kind: 'link', openedBy: 'pliers', oneUse: false },
  { kind: 'link', openedBy: 'pliers', oneUse: true },
  { kind: 'pin', openedBy: null, oneUse: true },
  { kind: 'riveted', openedBy: null, oneUse: true },
  { kind: 'clip', openedBy: 'hand', oneUse: false },
]
const JOINTS = (['link', 'pin', 're-press', 'clip'] as const).map((kind): JobPlan['joint'] => ({
  kind,
  arrow: true,
  letteredOut: false,
  greased: true,
  guide: 'snapped',
  sheet: '…',
}))
const SCHOOLS: readonly JobSchools[] = [
  { slack: 'off-ring', prepare: 'strip', close: 'pedal', oilPins: true },
  { slack: 'off-ring', prepare: 'oil-ends', close: 'pliers', oilPins: true },
  { ...SHIPPED_SCHOOLS, prepare: 'wipe' },
]

/** Plans in which every step of a job is somewhere. */
const plans = (): JobPlan[] =>
  DRIVES.flatMap((drive) =>
    PRESENT.flatMap((present) =>
      JOINTS.flatMap((joint) =>
        SCHOOLS.flatMap((schools) =>
          (['immersion-wax', 'dry-oil'] as const).flatMap((care) =>
            (['scrapped', 'rotation'] as const).flatMap((oldFate) =>
              (['worn', 'broken'] as const).flatMap((reason) =>
                [[], JOB_OUTCOMES.filter((one) => one !== 'customer-stops'), ['customer-stops' as const]].map(
                  (outcomes): JobPlan => ({
                    ...{ reason, drive, present, oldFate, joint, care, schools, outcomes, shortened: false },
                    chain: {
                      pitches: 112,
                      cut: { boxes: 1, cuts: [{ pitches: 4, end: 'either' }], ends: 'both-inner', offcut: 4 },
                      markedOut: true,
                      readyWaxed: outcomes.length > 1,
                      toSize: outcomes.length === 0,
                    },
                    rePress: 'allowed',
                    position: 'upright',
                  }),
                ),
              ),
            ),
          ),
        ),
      ),
    ),
  ).filter(({ joint, drive }) => joint.kind !== 'clip' || drive.type !== 'derailleur' || drive.timing)

/** Cares in which every step of them is somewhere. */
const cares = (): CareJob[] =>
  TREATMENTS.flatMap((care) =>
    CLEANINGS.flatMap((cleaning) =>
      POT_RECIPES.flatMap((recipe) =>
        WAX_FINISHES.map((finish): CareJob => ({
          care,
          cleaning,
          before: care,
          wet: true,
          checkFirst: true,
          handling: {
            drive: DRIVE,
            schools: SCHOOLS[0]!,
            present: PRESENT[0]!,
            joint: JOINTS[0]!,
            rePress: 'allowed',
            markedOut: false,
          },
          waxing: {
            recipe,
            vessel: 'slow-cooker',
            finish,
            linkInPot: false,
            times: { minutes: 1, hangMinutes: 1, heatMinutes: 1 },
          },
        })),
      ),
    ),
  )

/** Mends in which every step of them is somewhere. */
const mends = (): MendJob[] =>
  POSITIONS.flatMap((position) =>
    [true, false].flatMap((roadside) =>
      PRESENT.flatMap((present) => {
        const job: Omit<MendJob, 'option' | 'added'> = {
          handling: {
            ...{ drive: DRIVE, schools: SCHOOLS[0]!, present, joint: JOINTS[0]! },
            ...{ rePress: 'allowed', markedOut: false },
          },
          ...{ care: 'dry-oil', position, roadside },
        }
        return [
          ...MEND_JOINTS.flatMap((joint) =>
            mendOptions({ pitches: 112, broken: 'inner', damaged: [0, 20], spare: 4 }, [joint]).map((option) => ({
              ...job,
              option,
              added: null,
            })),
          ),
          ...(['link', 'pin'] as const).map((by) => ({
            ...job,
            option: null,
            added: addingBack({ pitches: 110, add: 2, by, linked: true, ownLink: false }),
          })),
        ]
      }),
    ),
  )

function told(): Map<string, Told> {
  const found = new Map<string, Told>()
  for (const { id, phase, tools, hazards, checked } of [
    ...plans().flatMap((plan) => fittingSteps(plan)),
    ...cares().flatMap((job) => careSteps(job)),
    ...mends().flatMap((job) => mendSteps(job)),
  ]) {
    const before = found.get(id) ?? { phase, tools: new Set<Tool>(), hazards: new Set<Hazard>(), checked: false }
    for (const tool of tools) before.tools.add(tool)
    for (const hazard of hazards) before.hazards.add(hazard)
    before.checked ||= checked
    found.set(id, before)
  }
  return found
}

const cell = (text: string): string => text.replaceAll('|', '\\|').replaceAll('\n', ' ')
/** A step's words, with the other ways they are said behind them. */
const said = (id: string, part: 'what' | 'why' | 'check'): string =>
  Object.entries(WORDS[id] ?? {})
    .filter(([key]) => key === part || key.startsWith(`${part}_`))
    .map(([, text]) => text)
    .filter((text, i, all) => all.indexOf(text) === i)
    .join(' / ')

/** What docs/steps.md has to say: every step there is, as the tables and the catalogue have it. */
export function stepsPage(): string {
  const rows = [...told()].map(
    ([id, { phase, tools, hazards, checked }]) =>
      `| ${[
        `\`${id}\``,
        jobs.phase[phase],
        cell(said(id, 'what')),
        cell(said(id, 'why')),
        [...tools].map((tool) => jobs.tool[tool]).join(', '),
        checked ? cell(said(id, 'check')) : '',
        [...hazards].join(', '),
        drawnAt(id) ?? '',
      ].join(' | ')} |`,
  )
  const order = COMES_BEFORE.map(([first, then]) => `- \`${first}\` before \`${then}\``)
  return `# The steps

Written by \`npm run steps\` from the tables of steps in \`core/src/jobs\`, \`core/src/care\`, \`core/src/pot\` and \`core/src/mends\` and their words in
\`contract/src/messages/steps.ts\`. One row a step; where it is said in several ways, a stroke parts them. Which steps a piece of work has, with
which tools and cautions, follows from the bike, the chain and the joint: \`fittingSteps\`, \`careSteps\` and
\`mendSteps\`.

| step | part | what | why | tools | seen before it is done | cautions | drawing |
|---|---|---|---|---|---|---|---|
${rows.join('\n')}

## What comes before what

The order of the tables is how the work is usually done. This is what must be so, whatever the plan:

${order.join('\n')}
`
}

/** The page as it lies there. */
export const stepsPageThere = (): string => readFileSync(FILE, 'utf8')

if (process.argv[1] === import.meta.filename) writeFileSync(FILE, stepsPage())
