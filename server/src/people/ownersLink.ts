import { v7 } from 'uuid'
import type { Database } from '../db/connection.ts'
import { audited, inShop } from '../db/work.ts'
import { PEOPLE, SHOPS, type InvitationRow } from '../auth/models.ts'
import { makeBornShop } from '../shop/bornShop.ts'
import { makeInvitation } from './invitations.ts'

/** A link for an owner who is at the machine Pelrin runs on. */
export interface OwnersLink {
  readonly shop: string
  readonly owner: string
  /** A first day to be walked through, or the way back of who lost their password. */
  readonly kind: InvitationRow['kind']
  readonly token: string
  readonly expiresAt: Date
}

/** Makes a shop to begin with in an empty database. Its owner has a link made by {@link linkForOwner}. */
export async function beginShop(database: Database, timeZone: string): Promise<void> {
  await inShop(database, v7(), null, (work) => makeBornShop(work, timeZone))
}

/**
 * Makes a link for an owner: whoever can run a command on this machine may have the shop back. It is in the audit, as done by nobody.
 *
 * @param wanted `shop`: its short name, where there are several; `owner`: by which they sign in, where there are several
 * @returns null where there is no such owner, or it is not said which
 */
export async function linkForOwner(
  database: Database,
  wanted: { readonly shop?: string | undefined; readonly owner?: string | undefined },
): Promise<OwnersLink | null> {
  const shops = (await database.of(SHOPS).findAll()).filter(
    ({ code }) => wanted.shop === undefined || code === wanted.shop,
  )
  const [shop] = shops
  if (!shop || shops.length > 1) return null
  return inShop(database, shop.id, null, async (work) => {
    const owners = await work.of(PEOPLE).findAll({
      where: { role: 'owner', active: true, ...(wanted.owner === undefined ? {} : { signInName: wanted.owner }) },
      order: [['id', 'ASC']],
      transaction: work.transaction,
    })
    const [owner] = owners
    if (!owner || owners.length > 1) return null
    const kind = shop.begunAt === null ? 'first-day' : 'way-back'
    const { token, expiresAt } = await makeInvitation(work, owner.id, kind)
    await audited(work, 'invited', 'person', owner.id, { kind, at: 'the machine' })
    return { shop: shop.name, owner: owner.name, kind, token, expiresAt }
  })
}

/** Whether a shop waits for its first day. */
export async function waitsForFirstDay(database: Database): Promise<boolean> {
  const shops = await database.of(SHOPS).findAll()
  return shops.length === 1 && shops[0]!.begunAt === null
}
