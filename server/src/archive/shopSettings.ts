import * as v from 'valibot'
import { ShopSettings, type Shop } from '@pelrin/contract'
import { audited, type Work } from '../db/work.ts'
import { shopShown, writeShop } from '../shop/service.ts'

/** What a shop says of itself that goes with an archive. What it is called at the door does not: there it may be somebody else. */
const { code: _code, ...TAKEN } = ShopSettings.entries
const Taken = v.partial(v.object(TAKEN))
type Settings = v.InferOutput<typeof Taken>

/** One thing an archive's shop says of itself otherwise. */
export interface ShopDiffers {
  readonly name: keyof typeof TAKEN
  readonly here: unknown
  readonly there: unknown
}

/** What of a shop goes out with its archive. */
export const settingsOf = (shop: Shop): Settings =>
  Object.fromEntries(Object.keys(TAKEN).map((name) => [name, shop[name as keyof typeof TAKEN]]))

/** What the shop of an archive says of itself otherwise than this one. What is not to be understood of it is passed over. */
export async function shopDiffers(work: Work, said: unknown): Promise<ShopDiffers[]> {
  const here = await shopShown(work)
  const there = (typeof said === 'object' && said !== null ? said : {}) as Record<string, unknown>
  return (Object.keys(TAKEN) as (keyof typeof TAKEN)[]).flatMap((name) => {
    const read = v.safeParse(TAKEN[name], there[name])
    // Both read by the schema: the order in which a database keeps what is in them says nothing.
    return !read.success || JSON.stringify(read.output) === JSON.stringify(v.parse(TAKEN[name], here[name]))
      ? []
      : [{ name, here: here[name], there: read.output }]
  })
}

/** From now on the shop says of itself what the archive's did. */
export async function takeSettings(work: Work, differs: readonly ShopDiffers[]): Promise<void> {
  if (differs.length === 0) return
  const change = Object.fromEntries(differs.map(({ name, there }) => [name, there]))
  await writeShop(work, await shopShown(work), change)
  await audited(work, 'changed', 'shop', work.shopId, { change })
}
