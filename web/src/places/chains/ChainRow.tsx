import { Box, Button, Typography } from '@mui/material'
import { useTranslation } from 'react-i18next'
import type { ChainThing } from '@pelrin/contract'
import { KeyCap } from '../../pieces/KeyCap.tsx'
import { VERDICT_LOOK } from '../../pieces/verdictLook.ts'
import { WearRule } from '../../pieces/WearRule.tsx'
import { ink } from '../../theme/theme.ts'
import { useChainWords } from './chainWords.ts'

/** One chain of the bike: what it is, how worn, what it is closed with, and putting it on. */
export function ChainRow({
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
        <Typography component="span" sx={{ display: 'block', fontWeight: 700, fontSize: 'size.lead' }}>
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
          disabled={busy}
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
