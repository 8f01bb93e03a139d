import {
  cutFor,
  judgeJoint,
  SHIPPED_SCHOOLS,
  type ChainModel,
  type JobPlan,
  type JobReason,
  type JointCandidate,
  type JointModel,
  type OldFate,
} from '@pelrin/core'
import type { JobParts } from '@pelrin/contract'
import type { Work } from '../db/work.ts'
import { ProblemError } from '../http/problem.ts'
import { bikeParts } from '../parts/bikeParts.ts'
import { catalogue } from '../parts/catalogue.ts'

/** What a job begins with, by all that is known of the bike and the parts kept for it; the best that fits where none are. */
export async function planJob(
  work: Work,
  bikeId: string,
  { reason, oldFate }: { reason: JobReason; oldFate: OldFate },
): Promise<{ plan: JobPlan; parts: JobParts; keptId: string | null }> {
  const found = await bikeParts(work, bikeId, { of: 'drive', joints: 'new', school: 'strict' })
  const { catalogue: all } = await catalogue(work)
  const kept = found.kept?.lines ?? []
  const chain =
    all.chains.find(({ id }) => kept.some(({ partId }) => partId === id)) ??
    all.chains.find(({ id }) => id === found.chainId)
  if (!chain) throw new ProblemError(409, 'job-parts-missing')
  const pitches = found.kept?.pitches ?? found.pitches
  if (pitches === null) throw new ProblemError(409, 'job-length-missing')
  const joint = jointFor(found, all.joints, kept, chain.id)
  const closing: JointCandidate = joint ? { model: joint, closings: 0 } : { model: 're-press' }
  const care = found.care
  const pressed = judgeJoint(
    { chain, newChain: true, speeds: found.drive.speeds, school: 'strict', care },
    { model: 're-press' },
  ).rules.find(({ rule }) => rule === 're-press')?.outcome
  const { drive } = found
  return {
    keptId: found.kept?.id ?? null,
    parts: {
      chainPartId: chain.id,
      chain: `${chain.maker} ${chain.name}`,
      jointPartId: joint?.id ?? null,
      joint: joint ? `${joint.maker} ${joint.name}` : null,
    },
    plan: {
      reason,
      drive: {
        type: drive.type,
        motor: drive.motor,
        guide: drive.guide,
        wideNarrow: drive.wideNarrow,
        clutch: drive.clutch,
        cageLock: drive.cageLock,
        discBrake: drive.discBrake,
        timing: false,
        speeds: drive.speeds,
      },
      present: found.present && {
        kind: found.present.kind,
        openedBy: found.present.model?.openedBy ?? null,
        oneUse: found.present.model?.reuse.kind === 'once' || found.present.kind === 'pin',
      },
      oldFate,
      shortened: await wasShortened(work, bikeId),
      chain: {
        pitches,
        cut: cutFor(chain, closing, pitches + (pitches % 2)),
        markedOut: chain.markedOut,
      },
      joint: {
        kind: joint?.kind ?? 're-press',
        arrow: joint?.arrow ?? false,
        letteredOut: joint?.letteredOut ?? false,
        greased: joint?.greased ?? false,
        guide: joint?.guide ?? null,
        sheet: joint?.sheet ?? null,
      },
      rePress: pressed === 'fits' ? 'allowed' : pressed === 'caution' ? 'caution' : 'excluded',
      care,
      position: 'upright',
      schools: SHIPPED_SCHOOLS,
      outcomes: [],
    },
  }
}

/** The joint that was kept with the chain, else the best for it that is one of the catalogue. */
function jointFor(
  { joints, chainId }: Awaited<ReturnType<typeof bikeParts>>,
  all: readonly JointModel[],
  kept: readonly { readonly partId: string }[],
  chosen: ChainModel['id'],
): JointModel | null {
  const own = all.find(({ id }) => kept.some(({ partId }) => partId === id))
  if (own) return own
  // Joints were matched for the best chain; for another one that was kept alone they are not known to fit.
  const best =
    chosen === chainId
      ? joints.find(({ part, outcome }) => part.model !== 're-press' && outcome !== 'does-not-fit')
      : undefined
  if (!best || best.part.model === 're-press') return null
  const { id } = best.part.model
  return all.find((one) => one.id === id) ?? null
}

async function wasShortened(work: Work, bikeId: string): Promise<boolean> {
  const [found] = await work.select(
    `SELECT 1 AS one FROM chain_events e JOIN fittings f ON f.chain_id = e.chain_id AND upper_inf(f.during)
     WHERE f.bike_id = :bikeId AND e.kind = 'shortened' AND NOT e.deleted`,
    { bikeId },
  )
  return found !== undefined
}
