import type { LedgerRide, Surface, SurfaceKm } from '@pelrin/core'
import { NO_KM, SURFACES } from '@pelrin/core'
import type { Work } from '../db/work.ts'
import { stands } from '../db/facts.ts'
import { DISTANCE_ENTRIES, type DistanceEntryRow } from './models.ts'

export interface StandingEntry {
  id: string
  at: Date
  kind: 'odometer' | 'statement' | 'chain-start'
  km: number
  typed: string
  unit: 'km' | 'mi'
  restarted: boolean
  person: string
}

/** A bike's odometer values and statements that stand: neither corrected nor deleted, in order of time. */
export function standingDistances(work: Work, bikeId: string): Promise<StandingEntry[]> {
  return work.prepared<StandingEntry>(
    `SELECT d.id, d.occurred_at AS at, d.kind, d.km, d.typed, d.unit, d.restarted, p.name AS person
     FROM distance_entries d JOIN people p ON p.id = d.person_id
     WHERE d.bike_id = :bikeId AND ${stands('distance_entries', 'd')}
     ORDER BY d.occurred_at, d.recorded_at, d.id`,
    { bikeId },
  )
}

/** The odometer values among {@link standingDistances}. */
export const standingEntries = async (work: Work, bikeId: string): Promise<StandingEntry[]> =>
  (await standingDistances(work, bikeId)).filter(({ kind }) => kind === 'odometer')

export async function appendEntry(
  work: Work,
  entry: Omit<DistanceEntryRow, 'recordedAt' | 'deleted' | 'kind' | 'reason'> & {
    reason?: string
    kind?: DistanceEntryRow['kind']
    deleted?: boolean
  },
): Promise<void> {
  await work
    .of(DISTANCE_ENTRIES)
    .create({ kind: 'odometer', deleted: false, ...entry, recordedAt: work.now }, { transaction: work.transaction })
}

export interface StandingRide {
  id: string
  bikeId: string
  from: Date
  to: Date
  km: number
  surface: Surface | null
  title: string | null
  source: 'typed' | 'file' | 'service'
  profile: { at: number; share: number }[] | null
  accountId: string | null
  externalId: string | null
  hasTrack: boolean
  person: string
  corrected: boolean
}

/** Stands: not superseded, not taken out. In terms of `r`. */
export const RIDE_STANDS = stands('rides', 'r')

const RIDES = `
  SELECT r.id, r.bike_id AS "bikeId", r.occurred_at AS "from", r.ended_at AS "to", r.km, r.surface, r.title, r.source,
    r.profile, r.account_id AS "accountId", r.external_id AS "externalId", EXISTS (SELECT 1 FROM ride_tracks t WHERE t.ride_id = r.id) AS "hasTrack", p.name AS person,
    r.supersedes_id IS NOT NULL AS corrected
  FROM rides r JOIN people p ON p.id = r.person_id WHERE ${RIDE_STANDS}`

/** A bike's rides that stand, in order of time. */
export const standingRides = (work: Work, bikeId: string): Promise<StandingRide[]> =>
  work.prepared<StandingRide>(`${RIDES} AND r.bike_id = :bikeId ORDER BY r.occurred_at, r.id`, { bikeId })

/** A ride that stands, by its id. */
export async function rideById(work: Work, id: string): Promise<StandingRide | null> {
  const [found] = await work.select<StandingRide>(`${RIDES} AND r.id = :id`, { id })
  return found ?? null
}

export const asLedgerRide = ({ id, from, to, km, surface, profile }: StandingRide): LedgerRide => ({
  id,
  from: from.getTime(),
  to: to.getTime(),
  km,
  surface,
  ...(profile === null ? {} : { profile }),
})

/** Kilometres by surface over a customer's bikes, or with none named over the whole shop, by their states. */
export async function surfaceMix(work: Work, customerId: string | null): Promise<SurfaceKm> {
  // In an order of its own: a sum of the same kilometres is the same to its last digit, and nothing is judged anew for it.
  const of = (surface: Surface): string =>
    `coalesce(sum((s.mix->>'${surface}')::float ORDER BY s.bike_id), 0) AS ${surface}`
  const [sums] = await work.prepared<Record<Surface, number>>(
    `SELECT ${SURFACES.map(of).join(', ')} FROM bike_state s ${customerId === null ? '' : 'JOIN bikes b ON b.id = s.bike_id WHERE b.customer_id = :customerId'}`,
    { customerId },
  )
  return { ...NO_KM, ...sums }
}
