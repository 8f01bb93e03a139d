import { Box, Button, Checkbox, Typography } from '@mui/material'
import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import { v7 } from 'uuid'
import type { PotRecipe } from '@pelrin/core'
import type { PotCandidate } from '@pelrin/contract'
import { clock } from '../../messages/format.ts'
import { SheetDialog } from '../../pieces/SheetDialog.tsx'
import { Refused } from '../../forms/Refused.tsx'
import { Allowed } from '../../pieces/Allowed.tsx'

export interface Added {
  readonly id: string
  readonly chainId: string
  readonly readyBy: string | null
  readonly needs: PotCandidate['needs']
  readonly recipe: PotRecipe
  readonly condition: PotCandidate['condition']
}

/** Chains that could go in: those of bikes in today are ticked. */
export function AddToPot({
  candidates,
  busy,
  wrong,
  onAdd,
  onClose,
}: {
  candidates: readonly PotCandidate[]
  busy: boolean
  wrong: string | null
  onAdd: (chains: readonly Added[]) => void
  onClose: () => void
}) {
  const { t } = useTranslation()
  const [ticked, setTicked] = useState(
    () => new Set(candidates.filter(({ because }) => because === 'in-today').map(({ chainId }) => chainId)),
  )
  const toggle = (id: string): void =>
    setTicked((before) => {
      const after = new Set(before)
      if (!after.delete(id)) after.add(id)
      return after
    })
  const add = (): void =>
    onAdd(
      candidates
        .filter(({ chainId }) => ticked.has(chainId))
        .map(({ chainId, promisedAt, needs, recipe, condition }) => ({
          id: v7(),
          chainId,
          readyBy: promisedAt,
          needs,
          recipe,
          condition,
        })),
    )
  return (
    <SheetDialog open onClose={onClose} title={t('pot.addTitle')} maxWidth="sm" fullWidth>
      <Box
        component="form"
        onSubmit={(event) => {
          event.preventDefault()
          add()
        }}
      >
        {candidates.length === 0 && <Typography>{t('pot.addNone')}</Typography>}
        <Box component="ul" sx={{ listStyle: 'none', m: 0, p: 0 }}>
          {candidates.map(({ chainId, chain, bike, because, waxCase, promisedAt, measureFirst }, i) => (
            <Box component="li" key={chainId} sx={{ borderTop: 1, borderColor: 'divider' }}>
              <Box
                component="label"
                sx={{ display: 'flex', alignItems: 'center', gap: 1, minHeight: 56, cursor: 'pointer' }}
              >
                <Checkbox autoFocus={i === 0} checked={ticked.has(chainId)} onChange={() => toggle(chainId)} />
                <span>
                  <Typography component="span" sx={{ display: 'block', fontWeight: 700 }}>
                    {bike ? `${bike.customer}, ${bike.label}` : chain}
                  </Typography>
                  <Typography component="span" variant="body2" color="textSecondary">
                    {[
                      bike && chain,
                      t(`caring.waxCase.${waxCase}.what`),
                      t(`pot.because.${because}`),
                      measureFirst && t('pot.measureFirst'),
                      promisedAt !== null && t('pot.promised', { time: clock(promisedAt) }),
                    ]
                      .filter(Boolean)
                      .join(', ')}
                  </Typography>
                </span>
              </Box>
            </Box>
          ))}
        </Box>
        <Refused>{wrong}</Refused>
        {candidates.length > 0 && (
          <Allowed right="record">
            <Button type="submit" variant="contained" disabled={busy || ticked.size === 0} sx={{ mt: 2 }}>
              {ticked.size === 0 ? t('pot.add') : t('pot.addGo', { count: ticked.size })}
            </Button>
          </Allowed>
        )}
      </Box>
    </SheetDialog>
  )
}
