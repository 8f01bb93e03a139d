import { keys } from './queries.ts'
import type { Endpoint } from '@pelrin/contract'
import { useWrite, type WriteOptions } from './useWrite.ts'

/** What a write about a bike makes stale: the next key acts on the bike as it is then; lists of other things follow. */
export const staleOfBike = (bikeId: string): Required<Pick<WriteOptions, 'stale' | 'later'>> => ({
  stale: [keys.bike(bikeId)],
  // A chain or a joint may be looked at beside its bike.
  later: [keys.catalogue, keys.lineUp, ['chain'], ['joint']],
})

/** Writes about a bike. */
export const useBikeWrite = (bikeId: string, access: Endpoint['access']) => useWrite({ access, ...staleOfBike(bikeId) })
