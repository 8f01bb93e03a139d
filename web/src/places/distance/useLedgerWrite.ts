import { useTranslation } from 'react-i18next'
import { keys } from '../../api/queries.ts'
import { useWrite } from '../../api/useWrite.ts'
import { useSurroundings } from '../../app/surroundings.ts'

/** Everything that shows what a bike was ridden. */
export const ofLedger = (bikeId: string) => [keys.bike(bikeId), keys.ledger(bikeId), keys.lineUp, keys.rack]

/** Writes to a ledger, and says so. */
export function useLedgerWrite(bikeId: string) {
  const { t } = useTranslation()
  const { tell } = useSurroundings()
  const { write: send, ...writing } = useWrite({ access: 'distance', stale: ofLedger(bikeId) })
  /** @returns whether it was written */
  const write = async (job: () => Promise<unknown>, said = t('distanceOf.saved')): Promise<boolean> => {
    const written = await send(() => job().then(() => true))
    if (written) tell(said)
    return written === true
  }
  return { ...writing, write }
}
