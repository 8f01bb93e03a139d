import { keys } from './queries.ts'
import { useWrite } from './useWrite.ts'

/** Writes about a bike: the next key acts on the bike as it is then; lists of other things follow. */
export const useBikeWrite = (bikeId: string) =>
  useWrite({
    stale: [keys.bike(bikeId)],
    // A chain or a joint may be looked at beside its bike.
    later: [keys.catalogue, keys.lineUp, ['chain'], ['joint']],
  })
