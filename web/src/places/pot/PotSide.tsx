import { Button, Typography } from '@mui/material'
import { useTranslation } from 'react-i18next'
import { HungChains } from './HungChains.tsx'
import { LearnedWords } from './LearnedWords.tsx'
import { NextActions } from './NextActions.tsx'
import { PotHeat } from './PotHeat.tsx'
import { PotSteps } from './PotSteps.tsx'
import { Allowed } from '../../pieces/Allowed.tsx'
import { shortName } from './shortName.ts'
import type { PotSessionView } from './usePotSession.ts'

/** What is to be done next, each pot's heat, and what is finished today. */
export function PotSide({
  board,
  pots,
  times,
  now,
  actions,
  moved,
  act,
  heat,
  recipeOf,
  atPot,
  busy,
  dry,
  setBackOn,
  setChanging,
}: PotSessionView) {
  const { t } = useTranslation()
  const [next] = actions
  const potOf = pots.find(({ id }) => id === (next?.potId ?? next?.chains[0]?.potId))
  return (
    <>
      <Typography variant="h3" component="h2" color="textSecondary">
        {t('pot.next')}
      </Typography>
      <NextActions
        actions={actions}
        pots={pots}
        now={now}
        moved={moved}
        onDo={(action) => void act(action)}
        onDry={dry}
      />
      {next && <PotSteps action={next} pot={potOf} waxing={board.waxing} times={times} />}
      <HungChains hung={board.hung} onBack={setBackOn} />
      {pots.map((pot) => (
        <PotHeat
          key={pot.id}
          pot={pot}
          recipe={recipeOf(pot.id)}
          heat={heat(pot.id)}
          now={now}
          times={times}
          busy={busy}
          onSwitch={atPot(pot.id).switchOn}
          onBath={atPot(pot.id).newBath}
          onChange={() => setChanging(pot)}
        />
      ))}
      <Allowed right="work">
        <Button onClick={() => setChanging('new')} sx={{ alignSelf: 'flex-start', px: 1 }}>
          {t('pot.addPot')}
        </Button>
      </Allowed>
      <LearnedWords learned={board.learned} />
      <Typography variant="body2" color="textSecondary" sx={{ pt: 1, borderTop: 1, borderColor: 'divider' }}>
        {t('pot.cautions')}
      </Typography>
      {board.done.length > 0 && (
        <Typography variant="body2" color="textSecondary">
          {t('pot.today', { count: board.done.length })}: {board.done.map(shortName).join('; ')}
        </Typography>
      )}
    </>
  )
}
