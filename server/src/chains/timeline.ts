import type { ChainPage, JointPage, ThingEvent } from '@pelrin/contract'
import type { Work } from '../db/work.ts'
import { ProblemError } from '../problems/problem.ts'
import { jointById } from '../parts/jointStore.ts'
import { asChainJoint } from './joints.ts'
import { chainById } from './store.ts'
import { stands } from '../db/facts.ts'

const BIKE = `json_build_object('id', b.id, 'label', b.label, 'customer', c.name)`

/** Where a chain was at a moment. */
const WHERE_WAS = (chain: string, at: string): string =>
  `LEFT JOIN fittings f ON f.chain_id = ${chain} AND ${at} <@ f.during
   LEFT JOIN bikes b ON b.id = f.bike_id LEFT JOIN customers c ON c.id = b.customer_id`

type Row = Omit<ThingEvent, 'at'> & { at: Date }

const OF_CHAIN = `
  SELECT f.id, lower(f.during) AS at, CASE WHEN f.start = 'unknown' THEN 'came-with' ELSE 'fitted' END AS kind,
    ${BIKE} AS bike, NULL::float8 AS value, NULL::float8 AS over, NULL::float8 AS under, NULL AS text, p.name AS person
  FROM fittings f JOIN bikes b ON b.id = f.bike_id JOIN customers c ON c.id = b.customer_id JOIN people p ON p.id = f.person_id
  WHERE f.chain_id = :id AND NOT isempty(f.during)
  UNION ALL
  SELECT f.id, upper(f.during), 'taken-off', ${BIKE}, NULL, NULL, NULL, f.end_reason, p.name
  FROM fittings f JOIN bikes b ON b.id = f.bike_id JOIN customers c ON c.id = b.customer_id JOIN people p ON p.id = f.person_id
  WHERE f.chain_id = :id AND upper(f.during) IS NOT NULL
  UNION ALL
  SELECT e.id, e.occurred_at, e.kind, CASE WHEN b.id IS NULL THEN NULL ELSE ${BIKE} END, e.pitches_after, NULL, NULL, NULL, p.name
  FROM chain_events e ${WHERE_WAS('e.chain_id', 'e.occurred_at')} JOIN people p ON p.id = e.person_id
  WHERE e.chain_id = :id AND ${stands('chain_events', 'e')}
  UNION ALL
  SELECT e.id, e.occurred_at, 'joint-' || e.kind, CASE WHEN b.id IS NULL THEN NULL ELSE ${BIKE} END, NULL, NULL, NULL, e.click, p.name
  FROM joint_events e ${WHERE_WAS('e.chain_id', 'e.occurred_at')} JOIN people p ON p.id = e.person_id
  WHERE e.chain_id = :id AND ${stands('joint_events', 'e')}
  UNION ALL
  SELECT r.id, r.occurred_at, 'read', ${BIKE}, s.value, s.over, s.under, i.name, p.name
  FROM readings r LEFT JOIN LATERAL (SELECT value, over, under FROM spots
    WHERE reading_id = r.id AND reading_occurred_at = r.occurred_at
    ORDER BY coalesce(value, over, '-infinity') DESC, position LIMIT 1) s ON true JOIN bikes b ON b.id = r.bike_id JOIN customers c ON c.id = b.customer_id
  JOIN people p ON p.id = r.person_id JOIN instruments i ON i.id = r.instrument_id
  WHERE r.chain_id = :id AND ${stands('readings', 'r')}
  UNION ALL
  SELECT o.id, o.kept_at, 'offcut', NULL, o.pitches, NULL, NULL, NULL, p.name
  FROM offcuts o JOIN jobs j ON j.id = o.job_id JOIN people p ON p.id = j.person_id
  WHERE o.chain_id = :id AND o.gone_at IS NULL
  ORDER BY at DESC, kind`

const asEvent = ({ at, ...rest }: Row): ThingEvent => ({ ...rest, at: at.toISOString() })

/** A chain with everything that happened to it, newest first. @throws ProblemError 404 */
export async function chainPage(work: Work, id: string): Promise<ChainPage> {
  const chain = await chainById(work, id)
  if (!chain) throw new ProblemError(404, 'chain-missing')
  const rows = await work.select<Row>(OF_CHAIN, { id })
  return { chain, events: rows.map(asEvent) }
}

/** A joint with its closings, newest first. @throws ProblemError 404 */
export async function jointPage(work: Work, id: string): Promise<JointPage> {
  const joint = await jointById(work, id)
  if (!joint) throw new ProblemError(404, 'joint-unknown')
  const rows = await work.select<Row>(
    `SELECT e.id, e.occurred_at AS at, 'joint-' || e.kind AS kind, CASE WHEN b.id IS NULL THEN NULL ELSE ${BIKE} END AS bike,
       NULL AS value, NULL AS over, NULL AS under, e.click AS text, p.name AS person
     FROM joint_events e ${WHERE_WAS('e.chain_id', 'e.occurred_at')} JOIN people p ON p.id = e.person_id
     WHERE e.joint_id = :id AND ${stands('joint_events', 'e')} ORDER BY e.occurred_at DESC, e.id DESC`,
    { id },
  )
  const [chain] = await work.select<{ id: string; name: string }>('SELECT id, name FROM chains WHERE id = :chainId', {
    chainId: joint.chainId,
  })
  return { joint: asChainJoint(joint), chain: chain ?? null, events: rows.map(asEvent) }
}
