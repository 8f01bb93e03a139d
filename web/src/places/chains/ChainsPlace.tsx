import { Box, Button, Stack, Typography } from '@mui/material'
import { useMemo, useState } from 'react'
import { useTranslation } from 'react-i18next'
import { useNavigate, useParams, useSearchParams } from 'react-router'
import { v7 } from 'uuid'
import { endpoints, type BikeChains, type ChainThing } from '@pelrin/contract'
import { ask } from '../../api/client.ts'
import { useBikeChains } from '../../api/queries.ts'
import { useBikeWrite } from '../../api/useBikeWrite.ts'
import { useSurroundings } from '../../app/surroundings.ts'
import { useTypedAhead } from '../../keys/typing.tsx'
import { Beside } from '../../pieces/Beside.tsx'
import { KeyButton } from '../../pieces/KeyButton.tsx'
import { KeyCap } from '../../pieces/KeyCap.tsx'
import { OfBike } from '../../pieces/OfBike.tsx'
import { SheetDialog } from '../../pieces/SheetDialog.tsx'
import { VERDICT_LOOK } from '../../pieces/verdictLook.ts'
import { WearRule } from '../../pieces/WearRule.tsx'
import { ink } from '../../theme/theme.ts'
import { AddChainDialog } from './AddChainDialog.tsx'
import { ChainPane } from './ChainPane.tsx'
import { useChainWords } from './chainWords.ts'
import { Refused } from '../../forms/Refused.tsx'
import { useCommands } from '../../keys/useCommands.ts'

/** The chains of a bike: which is on, which wait, and another one put on by one more key. */
export function ChainsPlace() {
  const { t } = useTranslation()
  const { id = '' } = useParams()
  const chains = useBikeChains(id)
  return (
    <OfBike bikeId={id} title={t('chains.title')} needs={[chains]}>
      {({ summary, lastOdometer }) =>
        chains.data && (
          <ChainsOf bikeId={id} chains={chains.data} unit={lastOdometer?.unit ?? 'km'} limit={summary.limit} />
        )
      }
    </OfBike>
  )
}

/** A chain keeps its digit, whichever is on. */
const numbered = ({ on, rotation }: BikeChains): ChainThing[] =>
  [...(on ? [on] : []), ...rotation].sort((a, b) => a.name.localeCompare(b.name) || (a.id < b.id ? -1 : 1))

function ChainsOf({
  bikeId,
  chains,
  unit,
  limit,
}: {
  bikeId: string
  chains: BikeChains
  unit: 'km' | 'mi'
  /** Of this bike: where a chain that runs on it is done, %. */
  limit: number
}) {
  const { t } = useTranslation()
  const navigate = useNavigate()
  const { tell } = useSurroundings()
  const [search, setSearch] = useSearchParams()
  const { wrong, setWrong, busy, write } = useBikeWrite(bikeId)
  const [adding, setAdding] = useState(false)
  /** The chain that was asked for although its link is spent. */
  const [spent, setSpent] = useState<ChainThing | null>(null)
  const own = useMemo(() => numbered(chains), [chains])
  const all = [...own, ...chains.loose]
  const chosen = all.find(({ id }) => id === search.get('chain')) ?? chains.on ?? all[0]
  const choose = (chain: ChainThing): void => setSearch({ chain: chain.id }, { replace: true })
  const step = (by: number): void => {
    const to = all[Math.min(all.length - 1, Math.max(0, (chosen ? all.indexOf(chosen) : 0) + by))]
    if (to) choose(to)
  }
  const putOn = async (chain: ChainThing, byFeel = false): Promise<void> => {
    if (busy || chain.id === chains.on?.id) return
    choose(chain)
    if (chain.joint?.mayClose === 'by-feel' && !byFeel) {
      setSpent(chain)
      return
    }
    setSpent(null)
    const id = v7()
    const body = { id, chainId: chain.id, click: chain.joint?.kind === 'link' ? ('firm' as const) : null, byFeel }
    if (await write(() => ask(endpoints.swapChain, { params: { id: bikeId }, key: id, body })))
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
  const row = (chain: ChainThing, digit: number | null) => (
    <ChainRow
      key={chain.id}
      chain={chain}
      digit={digit}
      unit={unit}
      limit={limit}
      on={chain.id === chains.on?.id}
      chosen={chain.id === chosen?.id}
      busy={busy}
      onChoose={() => choose(chain)}
      onPutOn={() => void putOn(chain)}
    />
  )
  return (
    <>
      <Beside width={430} beside={chosen && <ChainPane key={chosen.id} id={chosen.id} unit={unit} bikeId={bikeId} />}>
        <Stack direction="row" sx={{ alignItems: 'center', gap: 1.5, flexWrap: 'wrap' }}>
          <Typography variant="h2" sx={{ flex: 1 }}>
            {t('chains.ofBike')}
          </Typography>
          {chains.undo !== null && (
            <KeyButton of="chains.undo" variant="outlined" disabled={busy} onClick={undo}>
              {t('chains.undo')}
            </KeyButton>
          )}
          <KeyButton of="chains.add" variant="outlined" onClick={() => setAdding(true)}>
            {t('chains.add')}
          </KeyButton>
        </Stack>
        <Refused>{wrong?.sentence}</Refused>
        <Box component="ol" aria-label={t('chains.ofBike')} sx={{ listStyle: 'none', m: 0, p: 0 }}>
          {own.map((chain, i) => row(chain, i + 1))}
        </Box>
        <Typography color="textSecondary">
          {t(chains.rotation.length === 0 ? 'chains.rotationNone' : 'chains.swapNote')} {t('chains.caution')}
        </Typography>
        {chains.loose.length > 0 && (
          <Box component="section" aria-label={t('chains.loose')} sx={{ mt: 1 }}>
            <Typography variant="h3" component="h2" color="textSecondary">
              {t('chains.loose')}
            </Typography>
            <Box component="ol" sx={{ listStyle: 'none', m: 0, p: 0 }}>
              {chains.loose.map((chain) => row(chain, null))}
            </Box>
          </Box>
        )}
      </Beside>
      {adding && <AddChainDialog bikeId={bikeId} like={chains.on} onClose={() => setAdding(false)} />}
      {spent?.joint && (
        <SheetDialog
          open
          title={t('chains.byFeelTitle')}
          maxWidth="sm"
          onClose={() => {
            setSpent(null)
            setWrong(null)
          }}
        >
          <Typography sx={{ py: 1 }}>
            {t('chains.byFeel', { closings: spent.joint.closings ?? 0, most: spent.joint.most ?? 0 })}
          </Typography>
          <Button
            autoFocus
            variant="contained"
            color="secondary"
            disabled={busy}
            onClick={() => void putOn(spent, true)}
          >
            {t('chains.byFeelGo')}
          </Button>
        </SheetDialog>
      )}
    </>
  )
}

function ChainRow({
  chain,
  digit,
  unit,
  limit,
  on,
  chosen,
  busy,
  onChoose,
  onPutOn,
}: {
  chain: ChainThing
  digit: number | null
  unit: 'km' | 'mi'
  limit: number
  on: boolean
  chosen: boolean
  busy: boolean
  onChoose: () => void
  onPutOn: () => void
}) {
  const { t } = useTranslation()
  const words = useChainWords()
  return (
    <Box
      component="li"
      sx={{
        display: 'grid',
        gridTemplateColumns: { xs: '36px minmax(0, 1fr)', sm: '36px minmax(0, 1fr) 88px 120px' },
        alignItems: 'center',
        gap: 1.5,
        borderTop: 1,
        borderColor: 'divider',
        boxShadow: on ? `inset 5px 0 ${ink('steel')}` : 'none',
        bgcolor: chosen ? 'background.paper' : 'transparent',
        py: 1,
        px: 1.5,
      }}
    >
      <span>{digit !== null && <KeyCap>{String(digit)}</KeyCap>}</span>
      <Box
        component="button"
        type="button"
        onClick={onChoose}
        aria-current={chosen ? 'true' : undefined}
        sx={{
          font: 'inherit',
          color: 'inherit',
          textAlign: 'left',
          border: 0,
          p: 0,
          bgcolor: 'transparent',
          cursor: 'pointer',
          minHeight: 56,
        }}
      >
        <Typography component="span" sx={{ display: 'block', fontWeight: 700, fontSize: 18 }}>
          {chain.name}
          {!on && digit === null && `, ${t(`chains.state.${chain.state}`)}`}
        </Typography>
        <Typography component="span" variant="body2" sx={{ display: 'block' }}>
          {words.facts(chain, unit)}
        </Typography>
        <Typography component="span" variant="body2" color="textSecondary" sx={{ display: 'block' }}>
          {words.wear(chain)}; {words.joint(chain.joint)}
        </Typography>
      </Box>
      <WearRule
        size="small"
        marks={chain.governing === null ? [] : [{ ...chain.governing, worst: true }]}
        limit={limit}
        colour={chain.governing === null ? ink('steel') : VERDICT_LOOK[chain.governing.verdict].colour}
      />
      {on ? (
        <Typography sx={{ textAlign: 'center', fontWeight: 700, color: ink('steel'), px: 1 }}>
          {t('chains.onNow')}
        </Typography>
      ) : (
        <Button
          variant="outlined"
          disabled={busy || chain.joint?.mayClose === 'no'}
          onClick={onPutOn}
          aria-label={`${t('chains.putOn')}: ${chain.name}`}
          sx={{ minHeight: 56, px: 3 }}
        >
          {t('chains.putOn')}
        </Button>
      )}
    </Box>
  )
}
