import type { PotChainNow } from '@pelrin/contract'

/** The minute tests of the pot count from. */
export const FROM = Date.parse('2026-03-02T10:00:00Z')
/** So many minutes from then. */
export const at = (minute: number): string => new Date(FROM + minute * 60_000).toISOString()

/** A chain that waits for the pot. */
export const chain = (id: string, more: Partial<PotChainNow> = {}): PotChainNow => ({
  id,
  chainId: `of ${id}`,
  chain: 'Varrow Twelve, red tie',
  bike: { id: `bike ${id}`, label: 'Courier', customer: 'Mara Lisk' },
  readyBy: null,
  needs: 'nothing',
  recipe: 'soak-and-hang',
  condition: 'clean',
  notBefore: null,
  state: 'waiting',
  potId: null,
  since: at(-60),
  addedAt: at(-60),
  measureFirst: false,
  version: 1,
  ...more,
})
