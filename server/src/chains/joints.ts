import { judgeReuse } from '@pelrin/core'
import type { ChainJoint } from '@pelrin/contract'
import type { KnownJoint } from '../parts/jointStore.ts'

/** A joint as a chain's page shows it, with whether it may be closed once more. */
export function asChainJoint(joint: KnownJoint): ChainJoint {
  const { id, kind, model, closings, firm } = joint
  return {
    id,
    kind,
    name: model && `${model.maker} ${model.name}`,
    closings: kind === 'link' || kind === 'clip' ? closings : null,
    most: model?.reuse.kind === 'once' ? 1 : model?.reuse.kind === 'times' ? model.reuse.most : null,
    firm,
    mayClose: mayClose(joint),
  }
}

/** Whether a joint is closed once more on its own chain, by its maker's count and by feel. */
function mayClose({ kind, model, closings, firm }: KnownJoint): ChainJoint['mayClose'] {
  if (kind === 'pin' || kind === 'riveted') return 'no'
  if (!model) return firm === false ? 'no' : 'not-known'
  const outcome = (school: 'strict' | 'by-feel') =>
    judgeReuse({ reuse: model.reuse, closings, firm: firm ?? undefined }, school).outcome
  const strict = outcome('strict')
  if (strict === 'not-known') return 'not-known'
  if (strict !== 'does-not-fit') return 'yes'
  return outcome('by-feel') === 'does-not-fit' ? 'no' : 'by-feel'
}
