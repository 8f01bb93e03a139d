import { Box, Button, Link, MenuItem, Stack, TextField, Typography } from '@mui/material'
import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import { Link as Way } from 'react-router'
import { BATH_CONDITIONS, POT_NEEDS, POT_RECIPES } from '@pelrin/core'
import type { PotChainNow } from '@pelrin/contract'
import { clock, today } from '../../messages/format.ts'
import { timeOn } from '../../messages/timeOn.ts'
import { KeyButton } from '../../pieces/KeyButton.tsx'
import { ink } from '../../theme/theme.ts'
import { Cap } from '../../pieces/Cap.tsx'
import { Allowed } from '../../pieces/Allowed.tsx'

export type ChainChange = Partial<Pick<PotChainNow, 'readyBy' | 'needs' | 'recipe' | 'condition' | 'notBefore'>>

/** One chain of the session: by when it is wanted, what it needs, by which recipe, and its pin. */
export function ChosenChain({
  chain,
  busy,
  onChange,
  onPin,
  onTake,
}: {
  chain: PotChainNow
  busy: boolean
  onChange: (change: ChainChange) => void
  /** By so many minutes; null lets go. */
  onPin: (minutes: number | null) => void
  onTake: () => void
}) {
  const { t } = useTranslation()
  const [typed, setTyped] = useState(chain.readyBy === null ? '' : clock(chain.readyBy))
  const time = timeOn(typed, today())
  const commit = (): void => {
    if (time !== undefined && time !== chain.readyBy) onChange({ readyBy: time })
  }
  const waits = chain.state === 'waiting'
  const before = waits || chain.state === 'drying' || chain.state === 'stripping'
  const choice = <T extends string>(
    label: string,
    value: T,
    all: readonly T[],
    say: (one: T) => string,
    key: keyof ChainChange,
  ) => (
    <TextField
      select
      size="small"
      label={label}
      value={value}
      disabled={busy || !before}
      onChange={(event) => onChange({ [key]: event.target.value })}
      sx={{ minWidth: 150 }}
    >
      {all.map((one) => (
        <MenuItem key={one} value={one}>
          {say(one)}
        </MenuItem>
      ))}
    </TextField>
  )
  return (
    <Box component="section" aria-label={t('pot.chosen')} sx={{ borderTop: 1, borderColor: 'divider', pt: 1.25 }}>
      <Typography sx={{ fontWeight: 700, fontSize: 'size.lead' }}>
        {chain.bike ? `${chain.bike.customer}, ${chain.bike.label}: ${chain.chain}` : chain.chain}
        <Box component="span" sx={{ fontWeight: 400, color: 'text.secondary' }}>
          , {t(`pot.state.${chain.state}`)}
        </Box>
      </Typography>
      {chain.measureFirst && chain.bike && waits && (
        <Typography sx={{ fontWeight: 600, color: ink('brass') }}>
          {t('pot.measureFirst')}{' '}
          <Link component={Way} to={`/bikes/${chain.bike.id}/measure`}>
            {t('caring.measure')}
          </Link>
        </Typography>
      )}
      <Stack direction="row" sx={{ gap: 1.5, flexWrap: 'wrap', alignItems: 'flex-start', pt: 1.25 }}>
        <TextField
          size="small"
          label={t('pot.readyBy')}
          value={typed}
          onChange={(event) => setTyped(event.target.value)}
          onBlur={commit}
          onKeyDown={(event) => event.key === 'Enter' && commit()}
          error={time === undefined}
          helperText={time === undefined ? t('pot.notTime') : t('pot.readyByNote')}
          sx={{ width: 170 }}
        />
        {choice(t('pot.byRecipe'), chain.recipe, POT_RECIPES, (one) => t(`pot.recipe.${one}`), 'recipe')}
        {choice(t('pot.needsFirst'), chain.needs, POT_NEEDS, (one) => t(`pot.needs.${one}`), 'needs')}
        {choice(t('pot.cameAs'), chain.condition, BATH_CONDITIONS, (one) => t(`pot.condition.${one}`), 'condition')}
      </Stack>
      <Stack direction="row" sx={{ gap: 1, flexWrap: 'wrap', alignItems: 'center' }}>
        <Typography variant="body2" color="textSecondary" sx={{ flex: 1, minWidth: 220 }}>
          {chain.notBefore === null ? t('pot.pinNote') : t('pot.pinned', { time: clock(chain.notBefore) })}
        </Typography>
        {before && (
          <>
            <Allowed right="record">
              <Button disabled={busy} onClick={() => onPin(-5)} aria-label={t('pot.pinEarlier')}>
                <Cap of="pot.sooner" />
              </Button>
            </Allowed>
            <Allowed right="record">
              <Button disabled={busy} onClick={() => onPin(5)} aria-label={t('pot.pinLater')}>
                <Cap of="pot.later" />
              </Button>
            </Allowed>
            {chain.notBefore !== null && (
              <KeyButton of="pot.letGo" disabled={busy} onClick={() => onPin(null)}>
                {t('pot.unpin')}
              </KeyButton>
            )}
          </>
        )}
        <KeyButton of="pot.takeOut" color="error" disabled={busy} onClick={onTake}>
          {t('pot.take')}
        </KeyButton>
      </Stack>
    </Box>
  )
}
