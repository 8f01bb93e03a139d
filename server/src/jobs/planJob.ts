import {
  addedPitches,
  bikeQuestion,
  boxOf,
  chainSpeeds,
  cutFor,
  fittingSteps,
  judgeChain,
  judgeJoint,
  matchJoints,
  newJoint,
  rePressOf,
  shoppingList,
  siftChains,
  standardMinutes,
  withOwn,
  type Catalogue,
  type ChainModel,
  type JobPlan,
  type JobReason,
  type JointCandidate,
  type JointModel,
  type JointQuery,
  type OldFate,
  type PartsDrive,
} from '@pelrin/core'
import type { JobParts, PartsFacts } from '@pelrin/contract'
import type { Work } from '../db/work.ts'
import { ProblemError } from '../problems/problem.ts'
import { assumptionsInForce } from '../limits/assumptionsStore.ts'
import { partsFacts } from '../parts/bikeParts.ts'
import { billOf } from './bill.ts'
import { jobDriveOf, jointNowOf } from './handling.ts'
import { houseSchools } from './schools.ts'
import { catalogue } from '../parts/catalogueStore.ts'

/**
 * What a job begins with, by all that is known of the bike and the parts kept for it; the best that fits where none are. What
 * was kept and does not fit is not put on: of a tandem's two chains only the one that drives.
 */
export async function planJob(
  work: Work,
  bikeId: string,
  { reason, oldFate }: { reason: JobReason; oldFate: OldFate },
): Promise<{ plan: JobPlan; parts: JobParts; keptId: string | null }> {
  const facts = await partsFacts(work, bikeId)
  const { assumed } = await assumptionsInForce(work)
  const { question, pitches: worked } = bikeQuestion(facts, { of: 'drive', joints: 'new', school: 'strict' }, assumed)
  const { wants } = question
  const kept = facts.kept?.lines ?? []
  const all = withOwn((await catalogue(work)).catalogue, kept)
  const isKept = ({ id }: { readonly id: string }): boolean => kept.some(({ partId }) => partId === id)
  const chain = chainFor(wants, all, isKept)
  if (!chain) throw new ProblemError(409, 'job-parts-missing')
  // A tandem's list has one length for two chains.
  const known = (facts.drive.timing === null ? facts.kept?.pitches : null) ?? worked
  // Nobody knows: it is found on the bike, and begins with the whole box.
  const pitches = known ?? chain.inBox
  const query: JointQuery = {
    chain,
    newChain: true,
    speeds: chainSpeeds(wants),
    school: 'strict',
    care: wants.care,
    assumed,
  }
  const joint = jointFor(query, all, isKept)
  const rePress = rePressOf({ speeds: query.speeds, flaredPins: chain.flaredPins })
  // Without a joint there is no job: said here, not where its steps are made.
  if (!joint && rePress === 'excluded') throw new ProblemError(409, 'job-joint-missing')
  const closing: JointCandidate = joint ? newJoint(joint) : { model: 're-press' }
  const list = shoppingList(chain, closing, pitches)
  const plan: JobPlan = {
    ...planOf(facts),
    schools: (await houseSchools(work)).schools,
    reason,
    oldFate,
    shortened: await wasShortened(work, bikeId),
    chain: {
      pitches,
      cut: cutFor(chain, closing, pitches + (pitches % 2)),
      box: boxOf(chain, closing),
      toSize: known === null,
      addPitches: addedPitches(
        {
          stated: facts.drive.statedAdd,
          rings: facts.drive.fronts.length,
          largestSprocket: Math.max(0, ...facts.drive.sprockets),
          suspension: facts.drive.suspension,
          growthMm: facts.drive.growthMm,
        },
        assumed,
      ).pitches,
      markedOut: chain.markedOut,
      readyWaxed: chain.coating === 'waxed',
    },
    joint: {
      kind: joint?.kind ?? 're-press',
      arrow: joint?.arrow ?? false,
      letteredOut: joint?.letteredOut ?? false,
      greased: joint?.greased ?? false,
      guide: joint?.guide ?? null,
      sheet: joint?.sheet ?? null,
    },
    rePress,
  }
  const minutes = standardMinutes(fittingSteps(plan))
  return {
    keptId: facts.kept?.id ?? null,
    parts: {
      chainPartId: chain.id,
      chain: `${chain.maker} ${chain.name}`,
      jointPartId: joint?.id ?? null,
      joint: joint ? `${joint.maker} ${joint.name}` : null,
      list,
      estimate: await billOf(
        work,
        minutes,
        list.filter(({ included }) => !included),
      ),
    },
    plan,
  }
}

/** What follows from the bike alone. */
function planOf({ drive, present, care }: PartsFacts) {
  return {
    drive: jobDriveOf({ drive }),
    present: jointNowOf(present),
    care,
    position: 'upright' as const,
    outcomes: [],
  }
}

const chainFor = (
  wants: PartsDrive,
  { chains }: Catalogue,
  isKept: (part: ChainModel) => boolean,
): ChainModel | undefined =>
  chains.find((one) => isKept(one) && judgeChain(wants, one).outcome !== 'does-not-fit') ??
  siftChains(wants, chains).standing[0]?.part

function jointFor(query: JointQuery, { joints }: Catalogue, isKept: (part: JointModel) => boolean): JointModel | null {
  const own = joints.find((one) => isKept(one) && judgeJoint(query, newJoint(one)).outcome !== 'does-not-fit')
  if (own) return own
  const [best] = matchJoints(query, joints.map(newJoint), 1)
  return best && best.outcome !== 'does-not-fit' && best.part.model !== 're-press' ? best.part.model : null
}

async function wasShortened(work: Work, bikeId: string): Promise<boolean> {
  const [latest] = await work.select<{ kind: string }>(
    `SELECT e.kind FROM chain_events e JOIN fittings f ON f.chain_id = e.chain_id AND upper_inf(f.during)
     WHERE f.bike_id = :bikeId AND e.kind IN ('shortened', 'lengthened') AND NOT e.deleted
     ORDER BY e.occurred_at DESC, e.id DESC LIMIT 1`,
    { bikeId },
  )
  return latest?.kind === 'shortened'
}
