import type { Work } from '../db/work.ts'

/** The zone a shop's days are in. @throws Error outside any shop: there is no day without one */
export async function shopZone(work: Work): Promise<string> {
  const [shop] = await work.prepared<{ zone: string }>(
    'SELECT time_zone AS zone FROM shops WHERE id = pelrin_shop()',
    {},
  )
  if (!shop) throw new Error('no shop is open: its zone was asked for')
  return shop.zone
}
