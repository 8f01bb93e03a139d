import { useQueryClient } from '@tanstack/react-query'
import { useMemo, useState } from 'react'
import { useTranslation } from 'react-i18next'
import { v7 } from 'uuid'
import { assumptionsWith, recipeInPot, timesAsLearned, type PotRecipe, potInput } from '@pelrin/core'
import { endpoints, type Closing, type HungChain, type PotBoard, type PotChainNow, type PotNow } from '@pelrin/contract'
import { ask } from '../../api/client.ts'
import { keys } from '../../api/queries.ts'
import { showAnswer } from '../../api/showAnswer.ts'
import { useWrite } from '../../api/useWrite.ts'
import { useSurroundings } from '../../app/surroundings.ts'
import { useCommands } from '../../keys/useCommands.ts'
import { usePotPlan } from '../../workers/usePotPlan.ts'
import type { Added } from './AddToPot.tsx'
import type { ChainChange } from './ChosenChain.tsx'
import { usePotWords } from './NextActions.tsx'
import { MINUTE, notBefore, pinnedAt } from './pinned.ts'
import { asItStands, isMoving, potActions, type PotAction } from './potActions.ts'
import { shortName } from './shortName.ts'
import { useHeat } from './useHeat.ts'
import { useNow } from './useNow.ts'

/** The session as it stands, the plan that keeps its promises, what can be done next, and what the keys do. */
export function usePotSession(board: PotBoard) {
  const { t } = useTranslation()
  const client = useQueryClient()
  const { tell } = useSurroundings()
  const now = useNow(1000)
  const from = Math.floor(now / MINUTE) * MINUTE
  const { wrong, busy, write: send } = useWrite({ access: endpoints.addToPot.access, inOrder: 'pot' })
  /** What was sent on, as it stood then: it is not sent on again before it is shown where it went, which may be later than the answer. */
  const [moved, setMoved] = useState<readonly string[]>([])
  const [adding, setAdding] = useState(false)
  /** The chain that goes back on its bike, while it is asked how it was closed. */
  const [backOn, setBackOn] = useState<HungChain | null>(null)
  /** The pot that is changed, or a new one. */
  const [changing, setChanging] = useState<PotNow | 'new' | null>(null)
  const [chosenId, setChosenId] = useState<string | undefined>()
  const { pots, chains } = board
  const times = useMemo(
    () => timesAsLearned(assumptionsWith(board.assumptions).pot, board.learned),
    [board.assumptions, board.learned],
  )
  const recipeOf = (potId: string): PotRecipe => recipeInPot(chains, potId, board.waxing.recipe)
  const heat = useHeat(pots, recipeOf, now, times)
  const hot = pots
    .filter(({ id, onSince }) => onSince !== null && ['ready', 'hot'].includes(heat(id).word))
    .map(({ id }) => id)
    .join()
  const input = useMemo(
    () => potInput(board, from, times, (potId) => hot.split(',').includes(potId)),
    [board, from, times, hot],
  )
  const plan = usePotPlan(input, from)
  const actions = useMemo(() => (plan ? potActions(plan.plan, plan.from, chains) : []), [plan, chains])
  const words = usePotWords(pots)
  const chosen = chains.find(({ id }) => id === chosenId) ?? chains[0]

  /** Writes, and shows the board as it is after that; one that somebody else moved comes with the refusal. */
  const write = async (job: () => Promise<PotBoard>): Promise<boolean> => {
    const written = await send(async () => {
      await showAnswer(client, keys.pot, await job())
      return true
    })
    if (!written) await client.invalidateQueries({ queryKey: keys.pot })
    return written === true
  }
  /** A chain as the writes before have left it. */
  const asLeft = (chain: PotChainNow): PotChainNow =>
    client.getQueryData<PotBoard>(keys.pot)?.chains.find(({ id }) => id === chain.id) ?? chain
  /** What is pressed while another is written is written after it; the same twice is once. */
  const act = async (action: PotAction | undefined): Promise<void> => {
    if (!action || isMoving(action, moved)) return
    const sent = action.chains.map(asItStands)
    setMoved((before) => [...before, ...sent])
    const body = {
      chains: action.chains.map(({ id, state }) => ({ id, from: state })),
      to: action.to,
      potId: action.potId,
      occurredAt: new Date().toISOString(),
    }
    const written = await write(() => ask(endpoints.movePotChains, { key: v7(), body }))
    if (!written) setMoved((before) => before.filter((one) => !sent.includes(one)))
    else {
      tell(t('pot.moved', { what: words(action) }))
      for (const { bike } of action.chains)
        if (action.to === 'done' && bike) void client.invalidateQueries({ queryKey: keys.bike(bike.id) })
    }
  }
  const change = (chain: PotChainNow, bodyOf: (now: PotChainNow) => ChainChange): void =>
    void write(() => {
      const now = asLeft(chain)
      return ask(endpoints.changePotChain, { params: { id: now.id }, version: now.version, body: bodyOf(now) })
    })
  /** Blown dry: nothing more is waited for. */
  const dry = (action: PotAction): void => {
    for (const chain of action.chains) if (chain.needs === 'dry') change(chain, () => ({ needs: 'nothing' }))
  }
  /** Later or earlier than it is planned, or than it is pinned to; null: it may go in whenever it suits. */
  const pin = (chain: PotChainNow | undefined, minutes: number | null): void => {
    if (!chain) return
    const planned = plan?.plan.chains.find(({ id }) => id === chain.id)?.dip?.from
    change(chain, (now) =>
      minutes === null
        ? { notBefore: null }
        : notBefore(pinnedAt({ pinned: now.notBefore, plannedMinute: planned, from }).add(minutes, 'minute').valueOf()),
    )
  }
  const take = (chain: PotChainNow | undefined): void => {
    if (!chain) return
    const body = {
      chains: [{ id: chain.id, from: chain.state }],
      to: 'left' as const,
      potId: null,
      occurredAt: new Date().toISOString(),
    }
    void write(() => ask(endpoints.movePotChains, { key: v7(), body }))
  }
  const add = async (added: readonly Added[]): Promise<void> => {
    if (await write(() => ask(endpoints.addToPot, { key: v7(), body: { chains: [...added] } }))) setAdding(false)
  }
  const goBack = async (closing: Closing): Promise<void> => {
    if (!backOn) return
    const { id, bike } = backOn
    if (!(await write(() => ask(endpoints.backOn, { params: { id }, key: v7(), body: closing })))) return
    setBackOn(null)
    tell(t('pot.wentBack', { chain: shortName(backOn) }))
    if (bike) void client.invalidateQueries({ queryKey: keys.bike(bike.id) })
  }
  const step = (by: number): void => {
    const at = chosen ? chains.indexOf(chosen) : -1
    setChosenId(chains[Math.min(chains.length - 1, Math.max(0, at + by))]?.id)
  }
  useCommands('pot', {
    next: actions[0] ? () => act(actions[0]) : null,
    up: () => step(-1),
    down: () => step(1),
    sooner: () => pin(chosen, -5),
    later: () => pin(chosen, 5),
    letGo: chosen ? () => pin(chosen, null) : null,
    add: () => setAdding(true),
    takeOut: chosen ? () => take(chosen) : null,
    backOn: board.hung[0] ? () => setBackOn(board.hung[0]!) : null,
  })
  const atPot = (potId: string) => {
    const pot = pots.find(({ id }) => id === potId)
    return {
      switchOn: (on: boolean) =>
        pot &&
        void write(() => ask(endpoints.switchPot, { params: { id: potId }, version: pot.version, body: { on } })),
      newBath: () =>
        void write(() => ask(endpoints.changeBath, { params: { id: potId }, key: v7(), body: { id: v7() } })),
    }
  }
  /** Pinned to where it is drawn. */
  const pinAt = (chainId: string, at: number): void => {
    const chain = chains.find(({ id }) => id === chainId)
    if (chain) change(chain, () => notBefore(at))
  }
  return {
    board,
    pots,
    chains,
    times,
    now,
    plan,
    actions,
    moved,
    act,
    heat,
    recipeOf,
    atPot,
    chosen,
    choose: setChosenId,
    change,
    dry,
    pin,
    pinAt,
    take,
    add,
    adding,
    setAdding,
    backOn,
    setBackOn,
    goBack,
    changing,
    setChanging,
    busy,
    wrong: wrong?.sentence ?? null,
  }
}
export type PotSessionView = ReturnType<typeof usePotSession>
