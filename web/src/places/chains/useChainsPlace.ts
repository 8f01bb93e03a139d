import { useMemo, useState } from 'react'
import { useTranslation } from 'react-i18next'
import { useNavigate, useSearchParams } from 'react-router'
import { v7 } from 'uuid'
import { endpoints, type BikeChains, type ChainThing, type Closing } from '@pelrin/contract'
import { ask } from '../../api/client.ts'
import { useBikeWrite } from '../../api/useBikeWrite.ts'
import { useSurroundings } from '../../app/surroundings.ts'
import { useTypedAhead } from '../../keys/typing.tsx'
import { useCommands } from '../../keys/useCommands.ts'
import { asksClosing } from '../../pieces/ClosingDialog.tsx'

/** Nothing is asked of what closes it. */
export const UNSAID: Closing = { click: null, byFeel: false, linkPartId: null }

/** A chain keeps its digit, whichever is on. */
const numbered = ({ on, rotation }: BikeChains): ChainThing[] =>
  [...(on ? [on] : []), ...rotation].sort((a, b) => a.name.localeCompare(b.name) || (a.id < b.id ? -1 : 1))

/** The bike's chains, which of them is looked at, how another one is put on, and what the keys do. */
export function useChainsPlace(bikeId: string, chains: BikeChains) {
  const { t } = useTranslation()
  const navigate = useNavigate()
  const { tell } = useSurroundings()
  const [search, setSearch] = useSearchParams()
  const { wrong, setWrong, busy, write } = useBikeWrite(bikeId, endpoints.swapChain.access)
  const [adding, setAdding] = useState(false)
  /** The chain that is to go on, while it is asked how it was closed. */
  const [closing, setClosing] = useState<ChainThing | null>(null)
  const own = useMemo(() => numbered(chains), [chains])
  const all = [...own, ...chains.loose]
  const chosen = all.find(({ id }) => id === search.get('chain')) ?? chains.on ?? all[0]
  const choose = (chain: ChainThing): void => setSearch({ chain: chain.id }, { replace: true })
  const step = (by: number): void => {
    const to = all[Math.min(all.length - 1, Math.max(0, (chosen ? all.indexOf(chosen) : 0) + by))]
    if (to) choose(to)
  }
  const putOn = async (chain: ChainThing, how: Closing | null = null): Promise<void> => {
    if (busy || chain.id === chains.on?.id) return
    choose(chain)
    if (how === null && asksClosing(chain.joint)) {
      setClosing(chain)
      return
    }
    const id = v7()
    const body = { id, chainId: chain.id, ...(how ?? UNSAID) }
    if (!(await write(() => ask(endpoints.swapChain, { params: { id: bikeId }, key: id, body })))) return
    setClosing(null)
    tell(t('chains.swapped', { chain: chain.name }))
  }
  const undo = (): void => {
    const { undo: fittingId } = chains
    if (fittingId !== null)
      void write(() =>
        ask(endpoints.undoSwap, { params: { id: fittingId }, key: v7(), body: { reason: t('chains.undoReason') } }),
      )
  }
  const byDigit = (digit: string): void => {
    const chain = own[Number(digit) - 1]
    if (chain) void putOn(chain)
  }
  useTypedAhead(byDigit)
  useCommands('chains', {
    put: (digit) => byDigit(String(digit)),
    up: () => step(-1),
    down: () => step(1),
    add: () => setAdding(true),
    undo,
    measure: () => navigate(`/bikes/${bikeId}/measure`),
    record: () => navigate(`/bikes/${bikeId}`),
    back: () => navigate(`/bikes/${bikeId}`),
  })
  const leaveClosing = (): void => {
    setClosing(null)
    setWrong(null)
  }
  return { own, chosen, choose, putOn, undo, busy, wrong, adding, setAdding, closing, leaveClosing }
}
