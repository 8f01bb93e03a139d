import { Box, Stack, Typography } from '@mui/material'
import { useTranslation } from 'react-i18next'
import type { PotBoard } from '@pelrin/contract'
import { usePotBoard } from '../../api/queries.ts'
import { Refused } from '../../forms/Refused.tsx'
import { Beside } from '../../pieces/Beside.tsx'
import { ClosingDialog } from '../../pieces/ClosingDialog.tsx'
import { KeyButton } from '../../pieces/KeyButton.tsx'
import { Failure, Loading } from '../../pieces/States.tsx'
import { useTitle } from '../../pieces/useTitle.ts'
import { AddToPot } from './AddToPot.tsx'
import { ChosenChain } from './ChosenChain.tsx'
import { PlanWords } from './PlanWords.tsx'
import { PotDialog } from './PotDialog.tsx'
import { PotSide } from './PotSide.tsx'
import { PotTimeline } from './PotTimeline.tsx'
import { shortName } from './shortName.ts'
import { TimelineLegend } from './TimelineLegend.tsx'
import { usePotSession } from './usePotSession.ts'

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
  const view = usePotSession(board)
  const { pots, chains, plan, now, chosen, choose, change, pin, pinAt, take, add, adding, setAdding, busy, wrong } =
    view
  const { backOn, setBackOn, goBack, changing, setChanging } = view
  return (
    <Stack sx={{ height: { md: '100%' }, px: 2.75, pt: 1.5 }}>
      <Beside width={350} beside={<PotSide {...view} />}>
        <Stack direction="row" sx={{ alignItems: 'flex-start', gap: 2 }}>
          <Box sx={{ flex: 1 }}>
            <Typography variant="h1">{t('pot.title')}</Typography>
            {plan && chains.length > 0 && <PlanWords plan={plan} board={board} />}
          </Box>
          <KeyButton of="pot.add" variant="outlined" onClick={() => setAdding(true)} sx={{ minHeight: 56 }}>
            {t('pot.add')}
          </KeyButton>
        </Stack>
        <Refused>{adding || backOn ? undefined : (wrong ?? undefined)}</Refused>
        {pots.length === 0 && <Typography>{t('pot.noPot')}</Typography>}
        {chains.length === 0 && <Typography sx={{ fontSize: 'size.lead', py: 3 }}>{t('pot.empty')}</Typography>}
        {plan && chains.length > 0 && (
          <Box sx={{ overflowX: 'auto', flexShrink: 0 }}>
            <PotTimeline
              plan={plan}
              pots={pots}
              chains={chains}
              chosenId={chosen?.id}
              now={now}
              onChoose={choose}
              onPin={pinAt}
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
      {backOn && (
        <ClosingDialog
          bikeId={backOn.bike?.id ?? ''}
          joint={backOn.joint}
          toLink
          title={t('closing.title', { chain: shortName(backOn) })}
          busy={busy}
          wrong={wrong ?? undefined}
          onClose={() => setBackOn(null)}
          onClosed={(closing) => void goBack(closing)}
        />
      )}
      {changing !== null && <PotDialog pot={changing === 'new' ? null : changing} onClose={() => setChanging(null)} />}
      {adding && (
        <AddToPot
          candidates={board.candidates}
          busy={busy}
          wrong={wrong}
          onClose={() => setAdding(false)}
          onAdd={(added) => void add(added)}
        />
      )}
    </Stack>
  )
}
