import { Box, Stack, Typography } from '@mui/material'
import { useQueryClient } from '@tanstack/react-query'
import { useMemo, useState } from 'react'
import { useTranslation } from 'react-i18next'
import { v7 } from 'uuid'
import { assumptionsWith, type PotRecipe } from '@pelrin/core'
import { endpoints, type PotBoard, type PotChainNow } from '@pelrin/contract'
import { ask } from '../../api/client.ts'
import { keys, usePotBoard } from '../../api/queries.ts'
import { showAnswer } from '../../api/showAnswer.ts'
import { useWrite } from '../../api/useWrite.ts'
import { useSurroundings } from '../../app/surroundings.ts'
import { clock } from '../../messages/format.ts'
import { Beside } from '../../pieces/Beside.tsx'
import { KeyButton } from '../../pieces/KeyButton.tsx'
import { Failure, Loading } from '../../pieces/States.tsx'
import { useTitle } from '../../pieces/useTitle.ts'
import { ink } from '../../theme/theme.ts'
import { usePotPlan, type TimedPlan } from '../../workers/usePotPlan.ts'
import { AddToPot, type Added } from './AddToPot.tsx'
import { AddPot } from './AddPot.tsx'
import { ChosenChain, type ChainChange } from './ChosenChain.tsx'
import { NextActions, usePotWords } from './NextActions.tsx'
import { asItStands, isMoving, potActions, type PotAction } from './potActions.ts'
import { PotHeat } from './PotHeat.tsx'
import { potInput } from './potInput.ts'
import { TimelineLegend } from './TimelineLegend.tsx'
import { PotTimeline } from './PotTimeline.tsx'
import { shortName } from './shortName.ts'
import { useHeat } from './useHeat.ts'
import { useNow } from './useNow.ts'
import { Refused } from '../../forms/Refused.tsx'
import { useCommands } from '../../keys/useCommands.ts'

const MINUTE = 60_000

/** Today's session at the wax pot: what is promised, the plan that keeps it, what is to be done next, and the pot's heat. */
export function PotPlace() {
  const { t } = useTranslation()
  const board = usePotBoard()
  useTitle(t('pot.title'))
  if (board.isPending) return <Loading />
  if (!board.data) return <Failure error={board.error} again={() => void board.refetch()} />
  return <Session board={board.data} />
}

function Session({ board }: { board: PotBoard }) {
  const { t } = useTranslation()
  const client = useQueryClient()
  const { tell } = useSurroundings()
  const now = useNow(1000)
  const from = Math.floor(now / MINUTE) * MINUTE
  const { wrong, busy, write: send } = useWrite({ inOrder: 'pot' })
  /** What was sent on, as it stood then: it is not sent on again before it is shown where it went, which may be later than the answer. */
  const [moved, setMoved] = useState<readonly string[]>([])
  const [adding, setAdding] = useState(false)
  const [chosenId, setChosenId] = useState<string | undefined>()
  const { pots, chains } = board
  const times = useMemo(() => assumptionsWith(board.assumptions).pot, [board.assumptions])
  /** What is in a pot, or goes into it first, says which band it is to hold. */
  const recipeOf = (potId: string): PotRecipe =>
    chains.find((chain) => chain.potId === potId && chain.state === 'in-pot')?.recipe ??
    chains.find(({ state }) => state !== 'hanging')?.recipe ??
    'soak-and-hang'
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
  const notBefore = (at: number): ChainChange => ({
    notBefore: at <= Date.now() ? null : new Date(Math.round(at / MINUTE) * MINUTE).toISOString(),
  })
  /** Later or earlier than it is planned, or than it is pinned to; null: it may go in whenever it suits. */
  const pin = (chain: PotChainNow | undefined, minutes: number | null): void => {
    if (!chain) return
    const planned = plan?.plan.chains.find(({ id }) => id === chain.id)?.dip?.from
    change(chain, (now) => {
      if (minutes === null) return { notBefore: null }
      const at =
        now.notBefore !== null ? Date.parse(now.notBefore) : from + (planned === undefined ? 0 : planned * MINUTE)
      return notBefore(at + minutes * MINUTE)
    })
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
  })
  return (
    <Stack sx={{ height: { md: '100%' }, px: 2.75, pt: 1.5 }}>
      <Beside
        width={350}
        beside={
          <>
            <Typography variant="h3" component="h2" color="textSecondary">
              {t('pot.next')}
            </Typography>
            <NextActions actions={actions} pots={pots} now={now} moved={moved} onDo={(action) => void act(action)} />
            {pots.map((pot) => (
              <PotHeat
                key={pot.id}
                pot={pot}
                recipe={recipeOf(pot.id)}
                heat={heat(pot.id)}
                now={now}
                times={times}
                busy={busy}
                onSwitch={(on) =>
                  void write(() =>
                    ask(endpoints.switchPot, { params: { id: pot.id }, version: pot.version, body: { on } }),
                  )
                }
                onBath={() =>
                  void write(() => ask(endpoints.changeBath, { params: { id: pot.id }, key: v7(), body: { id: v7() } }))
                }
              />
            ))}
            {pots.length === 0 && <AddPot />}
            <Typography variant="body2" color="textSecondary" sx={{ pt: 1, borderTop: 1, borderColor: 'divider' }}>
              {t('pot.cautions')}
            </Typography>
            {board.done.length > 0 && (
              <Typography variant="body2" color="textSecondary">
                {t('pot.today', { count: board.done.length })}: {board.done.map(shortName).join('; ')}
              </Typography>
            )}
          </>
        }
      >
        <Stack direction="row" sx={{ alignItems: 'flex-start', gap: 2 }}>
          <Box sx={{ flex: 1 }}>
            <Typography variant="h1">{t('pot.title')}</Typography>
            {plan && chains.length > 0 && <PlanWords plan={plan} board={board} />}
          </Box>
          <KeyButton of="pot.add" variant="outlined" onClick={() => setAdding(true)} sx={{ minHeight: 56 }}>
            {t('pot.add')}
          </KeyButton>
        </Stack>
        <Refused>{adding ? undefined : wrong?.sentence}</Refused>
        {pots.length === 0 && <Typography>{t('pot.noPot')}</Typography>}
        {chains.length === 0 && <Typography sx={{ fontSize: 18, py: 3 }}>{t('pot.empty')}</Typography>}
        {plan && chains.length > 0 && (
          <Box sx={{ overflowX: 'auto', flexShrink: 0 }}>
            <PotTimeline
              plan={plan}
              pots={pots}
              chains={chains}
              chosenId={chosen?.id}
              now={now}
              onChoose={setChosenId}
              onPin={(id, at) => {
                const chain = chains.find((one) => one.id === id)
                if (chain) change(chain, () => notBefore(at))
              }}
            />
            <TimelineLegend />
          </Box>
        )}
        {chosen && (
          <ChosenChain
            key={`${chosen.id} ${chosen.version}`}
            chain={chosen}
            busy={busy}
            onChange={(body) => change(chosen, () => body)}
            onPin={(minutes) => pin(chosen, minutes)}
            onTake={() => take(chosen)}
          />
        )}
      </Beside>
      {adding && (
        <AddToPot
          candidates={board.candidates}
          busy={busy}
          wrong={wrong?.sentence ?? null}
          onClose={() => setAdding(false)}
          onAdd={(added) => void add(added)}
        />
      )}
    </Stack>
  )
}

/** Whether every promise is kept, which is not and by how much, and what planning gained. */
function PlanWords({ plan: { plan, firstCome, from }, board }: { plan: TimedPlan; board: PotBoard }) {
  const { t } = useTranslation()
  const at = (minute: number): string => clock(new Date(from + minute * MINUTE).toISOString())
  const late = plan.chains.filter((way) => way.late > 0)
  const nameOf = (id: string): string => {
    const chain = board.chains.find((one) => one.id === id)
    return chain ? shortName(chain) : ''
  }
  return (
    <>
      <Typography
        component="p"
        role="status"
        sx={{ fontSize: 24, fontWeight: 700, lineHeight: 1.2, color: late.length > 0 ? ink('madder') : ink('steel') }}
      >
        {late.length === 0
          ? t('pot.ready', { time: at(plan.finish) })
          : t('pot.readyLate', {
              count: late.length,
              which: late.map(({ id, late: count }) => t('pot.lateOf', { name: nameOf(id), count })).join(', '),
            })}
      </Typography>
      <Typography color="textSecondary">
        {firstCome.late > plan.late
          ? t('pot.gainLate', { count: firstCome.late - plan.late })
          : firstCome.finish > plan.finish
            ? t('pot.gainSooner', { count: firstCome.finish - plan.finish })
            : t('pot.gainNone')}
        {board.pots.some(({ onSince }) => onSince === null) && ` ${t('pot.coldNote')}`}
      </Typography>
    </>
  )
}
