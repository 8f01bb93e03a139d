import { Box, ButtonBase, Stack, Typography } from '@mui/material'
import { useEffect, useRef } from 'react'
import { useTranslation } from 'react-i18next'
import type { JudgedChain } from '@pelrin/contract'
import { Plate } from '../../pieces/Plate.tsx'
import { ink } from '../../theme/theme.ts'
import { OUTCOME_LOOK, priceText } from './partLook.ts'

/** A part as a list shows it. */
export interface ListedPart {
  readonly key: string
  readonly name: string
  readonly outcome: JudgedChain['outcome']
  /** What there is to mind, in a word or two. */
  readonly note: string
  readonly stock: number | null
  readonly price: number | null
}

/** Parts ranked, one of them chosen; walked by arrow keys from the place. */
export function PartsList({
  label,
  parts,
  chosen,
  onChoose,
}: {
  label: string
  parts: readonly ListedPart[]
  chosen: string | null
  onChoose: (key: string) => void
}) {
  const { t } = useTranslation()
  const at = useRef<HTMLElement>(null)
  const first = useRef(chosen)
  useEffect(() => {
    // What is chosen from the start needs no way to it: on a phone the whole page would follow.
    if (chosen !== first.current) at.current?.scrollIntoView({ block: 'nearest' })
    first.current = null
  }, [chosen])
  const said = (outcome: ListedPart['outcome'], note: string): string => {
    const word = t(`parts.outcome.${outcome}`)
    return note === '' ? word : t(outcome === 'fits' ? 'parts.fitsWith' : 'parts.notFor', { word, note })
  }
  return (
    <Box role="listbox" aria-label={label} sx={{ overflow: { md: 'auto' }, minHeight: 0 }}>
      {parts.map(({ key, name, outcome, note, stock, price }) => {
        const { plate, colour } = OUTCOME_LOOK[outcome]
        const isChosen = key === chosen
        return (
          <ButtonBase
            key={key}
            ref={isChosen ? (at as React.Ref<HTMLButtonElement>) : null}
            role="option"
            aria-selected={isChosen}
            onClick={() => onChoose(key)}
            sx={{
              width: '100%',
              minHeight: 48,
              px: 1,
              py: 0.5,
              gap: 1.25,
              justifyContent: 'flex-start',
              textAlign: 'left',
              font: 'inherit',
              borderTop: 1,
              borderColor: 'divider',
              boxShadow: isChosen ? `inset 4px 0 ${ink('steel')}` : 'none',
              bgcolor: isChosen ? ink('blade') : 'transparent',
            }}
          >
            <Plate shape={plate} colour={colour} height={15} />
            <Box sx={{ flex: 1, minWidth: 0 }}>
              <Typography
                component="span"
                noWrap
                sx={{ display: 'block', fontWeight: isChosen ? 700 : 600, lineHeight: 1.2 }}
              >
                {name}
              </Typography>
              <Typography
                component="span"
                variant="body2"
                noWrap
                title={said(outcome, note)}
                sx={{ display: 'block', color: outcome === 'fits' ? 'text.secondary' : colour, lineHeight: 1.2 }}
              >
                {said(outcome, note)}
              </Typography>
            </Box>
            <Stack sx={{ alignItems: 'flex-end', flexShrink: 0 }}>
              <Typography component="span" sx={{ lineHeight: 1.2, fontVariantNumeric: 'tabular-nums' }}>
                {priceText(price, t)}
              </Typography>
              <Typography component="span" variant="body2" color="textSecondary" sx={{ lineHeight: 1.2 }}>
                {stock === null ? '' : stock === 0 ? t('parts.stockNone') : t('parts.stock', { count: stock })}
              </Typography>
            </Stack>
          </ButtonBase>
        )
      })}
    </Box>
  )
}
