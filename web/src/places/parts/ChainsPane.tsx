import { Box, Stack, TextField, ToggleButton, ToggleButtonGroup, Typography } from '@mui/material'
import { useTranslation } from 'react-i18next'
import type { ChainOf } from '@pelrin/core'
import { Cap } from '../../pieces/Cap.tsx'
import { KeyButton } from '../../pieces/KeyButton.tsx'
import { listedChain } from './listed.ts'
import { placeText, ruledText } from './partAnswer.ts'
import { chainName } from './partLook.ts'
import { PartsList } from './PartsList.tsx'
import { RulesOf } from './RulesOf.tsx'
import type { PartsView } from './usePartsPlace.ts'

/** Chains for the bike, ranked, and why the chosen one stands where it does. */
export function ChainsPane(view: PartsView) {
  const { t } = useTranslation()
  const { facts, match, chain, chooseChain } = view
  return (
    <Stack sx={{ minHeight: 0, pb: 1, gap: 0.75, gridRow: { md: 2 } }}>
      <Head {...view} />
      <PartsList
        label={t('parts.chains')}
        parts={match.chains.map((one) => listedChain(one, t))}
        chosen={match.chainId}
        onChoose={chooseChain}
      />
      {match.chains.length === 0 && <Typography>{t('parts.nothing')}</Typography>}
      <Typography variant="body2" color="textSecondary">
        {t('parts.excluded', { count: match.chainsExcluded })}
      </Typography>
      {chain && (
        <RulesOf
          title={t('parts.why', { part: chainName(chain) })}
          answer={[ruledText(chain, t), placeText(facts.drive, chain, match.chains, t)]
            .filter((said) => said !== '')
            .join(' ')}
          rules={chain.rules}
        />
      )}
    </Stack>
  )
}

/** Which chain is looked for, how two compare, and a part asked about by its name. */
function Head({ choice, choose, turn, hasTiming, match, askField, setSheet }: PartsView) {
  const { t } = useTranslation()
  return (
    <Stack direction="row" sx={{ alignItems: 'center', gap: 1, flexWrap: 'wrap' }}>
      {hasTiming ? (
        <ToggleButtonGroup
          exclusive
          value={choice.of}
          aria-label={t('parts.whichChain')}
          onChange={(_, next: ChainOf | null) => next && turn(next)}
        >
          {(['drive', 'timing'] as const).map((of) => (
            <ToggleButton key={of} value={of} sx={{ minHeight: 40, px: 1.25, gap: 0.75, whiteSpace: 'nowrap' }}>
              {t(`parts.chainOf.${of}`)} {of === 'timing' && <Cap of="parts.otherChain" />}
            </ToggleButton>
          ))}
        </ToggleButtonGroup>
      ) : (
        <Typography variant="h2" component="h2">
          {t('parts.chains')}
        </Typography>
      )}
      <Box sx={{ flex: 1 }} />
      <KeyButton
        of="parts.compare"
        variant="text"
        onClick={() => setSheet('compare')}
        disabled={match.chains.length < 2}
        sx={{ minHeight: 40, px: 0.75, minWidth: 0 }}
      >
        {!hasTiming && t('parts.compare.short')}
      </KeyButton>
      <TextField
        inputRef={askField}
        size="small"
        value={choice.asked}
        placeholder={t('parts.ask')}
        onChange={(event) => choose({ asked: event.target.value })}
        onKeyDown={(event) => {
          if (event.key !== 'Escape') return
          event.stopPropagation()
          choose({ asked: '' })
          askField.current?.blur()
        }}
        slotProps={{
          htmlInput: { 'aria-label': t('parts.ask'), title: t('parts.askHint') },
          input: { endAdornment: <Cap of="parts.ask" /> },
        }}
        sx={{ width: 160 }}
      />
    </Stack>
  )
}
