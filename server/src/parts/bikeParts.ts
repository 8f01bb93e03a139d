import { bikeQuestion, matchForBike, withOwn, type AskedOfBike } from '@pelrin/core'
import type { BikeMatch, BikeParts, PartsFacts } from '@pelrin/contract'
import type { Work } from '../db/work.ts'
import { ProblemError, refuseField } from '../problems/problem.ts'
import { assumptionsInForce } from '../limits/assumptionsStore.ts'
import { presentFitting } from '../fittings/presentFitting.ts'
import { keptFor } from '../stock/kept.ts'
import { catalogue, systems } from './catalogueStore.ts'
import { driveOf } from './drive.ts'
import { presentJoint } from './joints.ts'
import { BIKES } from '../bikes/models.ts'
import { CHAINS } from '../chains/models.ts'
import { BIKE_STATE } from '../state/models.ts'

/** What is known of a bike for choosing its parts. @throws ProblemError 404 */
export async function partsFacts(work: Work, bikeId: string): Promise<PartsFacts> {
  const bike = await work.of(BIKES).findByPk(bikeId, { transaction: work.transaction })
  const drive = await driveOf(work, bikeId)
  if (!bike || !drive) throw new ProblemError(404, 'bike-unknown')
  const fitting = await presentFitting(work, bikeId)
  const chain = fitting && (await work.of(CHAINS).findByPk(fitting.chainId, { transaction: work.transaction }))
  const state = await work.of(BIKE_STATE).findByPk(bikeId, { transaction: work.transaction })
  return {
    version: bike.version,
    drive,
    care: fitting?.care ?? 'unknown',
    sprocketsSuspect: state?.advice != null,
    oldPitches: fitting?.pitches ?? null,
    presentChainId: chain?.partId ?? null,
    oldLook: { small: chain?.hungSmall ?? null, large: chain?.hungLarge ?? null },
    present: fitting && (await presentJoint(work, fitting.chainId)),
    systems: await systems(work),
    kept: await keptFor(work, bikeId),
  }
}

/** What fits a bike, by the rules of the core; the drive as it is known, the whole catalogue. */
export async function bikeParts(
  work: Work,
  bikeId: string,
  { chain, ...asked }: Omit<AskedOfBike, 'chainId'> & { chain?: string | undefined },
): Promise<BikeParts> {
  const facts = await partsFacts(work, bikeId)
  const { assumed } = await assumptionsInForce(work)
  const { question, pitches } = bikeQuestion(facts, { ...asked, chainId: chain }, assumed)
  const { catalogue: parts } = await catalogue(work)
  if (chain !== undefined && !parts.chains.some(({ id }) => id === chain)) throw refuseField('chain', 'part-unknown')
  return {
    ...facts,
    ...(matchForBike(question, withOwn(parts, facts.kept?.lines ?? [])) as unknown as Omit<BikeMatch, 'pitches'>),
    pitches,
  }
}
