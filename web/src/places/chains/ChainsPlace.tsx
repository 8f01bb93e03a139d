import { Box, Stack, Typography } from '@mui/material'
import { useTranslation } from 'react-i18next'
import { useParams } from 'react-router'
import type { BikeChains, ChainThing } from '@pelrin/contract'
import { useBikeChains } from '../../api/queries.ts'
import { Refused } from '../../forms/Refused.tsx'
import { Beside } from '../../pieces/Beside.tsx'
import { KeyButton } from '../../pieces/KeyButton.tsx'
import { OfBike } from '../../pieces/OfBike.tsx'
import { ClosingDialog } from '../../pieces/ClosingDialog.tsx'
import { AddChainDialog } from './AddChainDialog.tsx'
import { ChainPane } from './ChainPane.tsx'
import { ChainRow } from './ChainRow.tsx'
import { useChainsPlace } from './useChainsPlace.ts'
import { unitOf } from '../../messages/format.ts'

/** The chains of a bike: which is on, which wait, and another one put on by one more key. */
export function ChainsPlace() {
  const { t } = useTranslation()
  const { id = '' } = useParams()
  const chains = useBikeChains(id)
  return (
    <OfBike bikeId={id} title={t('chains.title')} needs={[chains]}>
      {({ summary, lastOdometer }) =>
        chains.data && (
          <ChainsOf bikeId={id} chains={chains.data} unit={unitOf({ lastOdometer })} limit={summary.limit} />
        )
      }
    </OfBike>
  )
}

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
  const { own, chosen, choose, putOn, undo, busy, wrong, adding, setAdding, closing, leaveClosing } = useChainsPlace(
    bikeId,
    chains,
  )
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
        <Refused>{closing ? undefined : wrong?.sentence}</Refused>
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
      {closing && (
        <ClosingDialog
          bikeId={bikeId}
          joint={closing.joint}
          title={t('closing.title', { chain: closing.name })}
          busy={busy}
          wrong={wrong?.sentence}
          onClose={leaveClosing}
          onClosed={(how) => void putOn(closing, how)}
        />
      )}
    </>
  )
}
