import type { JointModel, PresentJointSeen } from '@pelrin/contract'
import type { Work } from '../db/work.ts'
import { stands } from '../db/facts.ts'
import { PARTS, type PartRow } from '../catalogue/models.ts'

/** A joint as a thing, by everything that stands of it. */
export interface KnownJoint {
  readonly id: string
  readonly kind: PresentJointSeen['kind']
  /** Which part it is, where that is known. */
  readonly model: JointModel | null
  /** Those before it was known and those written down since; null where nobody counted. */
  readonly closings: number | null
  /** Whether it clicked firmly when it was closed or seen last; null where nobody said. */
  readonly firm: boolean | null
  readonly seenAt: Date
  /** The chain it was closed or seen on last. */
  readonly chainId: string
}

type Row = Omit<KnownJoint, 'model' | 'firm'> & { partId: string | null; click: 'firm' | 'weak' | 'none' | null }

const COLUMNS = `j.id, j.kind, j.part_id AS "partId", e.click, e.chain_id AS "chainId", e.occurred_at AS "seenAt",
    j.closings_before + (SELECT count(*)::int FROM joint_events c
      WHERE c.joint_id = j.id AND c.kind = 'closed' AND ${stands('joint_events', 'c')}) AS closings`
const FROM = 'FROM joint_events e JOIN joints j ON j.id = e.joint_id'
const LATEST = 'ORDER BY e.occurred_at DESC, e.id DESC LIMIT 1'

/** What a chain is closed with, by the last that was written down of it; null where nobody looked. */
export const jointOfChain = (work: Work, chainId: string): Promise<KnownJoint | null> =>
  jointWhere(work, `WHERE e.chain_id = :chainId AND ${stands('joint_events', 'e')}`, { chainId })

/** A joint by its id; null for none. */
export const jointById = (work: Work, id: string): Promise<KnownJoint | null> =>
  jointWhere(work, `WHERE j.id = :id AND ${stands('joint_events', 'e')}`, { id })

async function jointWhere(work: Work, where: string, values: Record<string, string>): Promise<KnownJoint | null> {
  const [row] = await work.select<Row>(`SELECT ${COLUMNS} ${FROM} ${where} ${LATEST}`, values)
  if (!row) return null
  const part = row.partId === null ? null : await work.of(PARTS).findByPk(row.partId, { transaction: work.transaction })
  return known(row, part?.get({ plain: true }))
}

/** What each of several chains is closed with, by chain; none for one nobody looked at. */
export async function jointsOfChains(
  work: Work,
  chainIds: readonly string[],
): Promise<ReadonlyMap<string, KnownJoint>> {
  if (chainIds.length === 0) return new Map()
  const rows = await work.select<Row>(
    `SELECT DISTINCT ON (chains.chain_id) ${COLUMNS} ${FROM}
     JOIN unnest(ARRAY[:chainIds]::uuid[]) AS chains (chain_id) ON chains.chain_id = e.chain_id
     WHERE ${stands('joint_events', 'e')} ORDER BY chains.chain_id, e.occurred_at DESC, e.id DESC`,
    { chainIds: [...chainIds] },
  )
  const partIds = rows.flatMap(({ partId }) => partId ?? [])
  const parts = await work.of(PARTS).findAll({ where: { id: partIds }, transaction: work.transaction })
  const byId = new Map(parts.map((part) => [part.id, part.get({ plain: true })]))
  return new Map(rows.map((row) => [row.chainId, known(row, byId.get(row.partId ?? ''))]))
}

const known = ({ partId: _, click, ...joint }: Row, part: PartRow | undefined): KnownJoint => ({
  ...joint,
  model: part ? asJointModel(part) : null,
  firm: click === null ? null : click === 'firm',
})

/** A part of the catalogue as the joint it is. */
const asJointModel = ({ id, kind, maker, name, price, stock, facts }: PartRow): JointModel =>
  ({ id, kind, maker, name, price, stock, ...facts }) as JointModel
