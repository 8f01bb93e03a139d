import { Box, MenuItem, TextField, Typography } from '@mui/material'
import { useState } from 'react'
import { useHotkeys } from 'react-hotkeys-hook'
import { useTranslation } from 'react-i18next'
import type { JudgedChain } from '@pelrin/contract'
import { number } from '../../messages/format.ts'
import { Plate } from '../../pieces/Plate.tsx'
import { SheetDialog } from '../../pieces/SheetDialog.tsx'
import { ink } from '../../theme/theme.ts'
import { chainName, OUTCOME_LOOK, priceText } from './partLook.ts'
import { saidOf } from '../../messages/said.ts'

/** Two chains side by side: what every rule says of each, and what they are. Where they differ stands out. */
export function CompareDialog({
  chains,
  first,
  onClose,
}: {
  chains: readonly JudgedChain[]
  /** The one chosen; the other is the best beside it, until another is taken. */
  first: string
  onClose: () => void
}) {
  const { t } = useTranslation()
  const others = chains.filter(({ part }) => part.id !== first)
  const [second, setSecond] = useState(others[0]?.part.id ?? '')
  const step = (by: number): void => {
    const at = others.findIndex(({ part }) => part.id === second)
    setSecond(others[Math.min(others.length - 1, Math.max(0, at + by))]?.part.id ?? second)
  }
  useHotkeys('arrowdown', () => step(1), { preventDefault: true }, [second, others])
  useHotkeys('arrowup', () => step(-1), { preventDefault: true }, [second, others])
  const [a, b] = [first, second].map((id) => chains.find(({ part }) => part.id === id))
  const rules = [...new Set([a, b].flatMap((one) => one?.rules.map(({ rule }) => rule) ?? []))]
  const rows: readonly {
    label: string
    of: (one: JudgedChain) => { text: string; outcome?: JudgedChain['outcome'] }
  }[] = [
    { label: t('parts.compare.price'), of: ({ part }) => ({ text: priceText(part.price, t) }) },
    {
      label: t('parts.compare.stock'),
      of: ({ part }) => ({ text: part.stock === 0 ? t('parts.stockNone') : t('parts.stock', { count: part.stock }) }),
    },
    ...rules.map((rule) => ({
      label: saidOf(t, 'parts.rule', rule),
      of: (one: JudgedChain) => {
        const said = one.rules.find((each) => each.rule === rule)
        return said
          ? { text: saidOf(t, 'parts.reason', said.reason, said.values), outcome: said.outcome }
          : { text: '' }
      },
    })),
    { label: t('parts.compare.level'), of: ({ part }) => ({ text: part.level ?? '' }) },
    { label: t('parts.compare.coating'), of: ({ part }) => ({ text: t(`parts.coating.${part.coating}`) }) },
    {
      label: t('parts.compare.width'),
      of: ({ part }) => ({ text: part.outerMm === null ? '' : `${number(part.outerMm, 2)} mm` }),
    },
    {
      label: t('parts.compare.closed'),
      of: ({ part }) => ({ text: part.joints.map((joint) => t(`parts.jointKind.${joint}`)).join(', ') }),
    },
    {
      label: t('parts.compare.box'),
      of: ({ part }) => ({
        text: [
          String(part.inBox),
          ...(part.jointInBox === 'none' ? [] : [t(`parts.inBoxShort.${part.jointInBox}`)]),
        ].join(', '),
      }),
    },
  ]
  if (!a) return null
  return (
    <SheetDialog open onClose={onClose} title={t('parts.compare.title')} maxWidth="md" fullWidth>
      <Box
        component="table"
        sx={{
          width: '100%',
          tableLayout: 'fixed',
          borderCollapse: 'collapse',
          '& th, & td': {
            textAlign: 'left',
            verticalAlign: 'top',
            py: 0.6,
            pr: 2,
            borderTop: `1px solid ${ink('line')}`,
          },
        }}
      >
        <thead>
          <tr>
            <Box component="th" sx={{ width: 150 }} />
            <th>
              <Head one={a} />
            </th>
            <th>
              <TextField
                select
                size="small"
                value={second}
                onChange={(event) => setSecond(event.target.value)}
                slotProps={{ select: { inputProps: { 'aria-label': t('parts.compare.other') } } }}
                sx={{ mb: 0.5, width: '100%' }}
              >
                {others.map((one) => (
                  <MenuItem key={one.part.id} value={one.part.id}>
                    {chainName(one)}
                  </MenuItem>
                ))}
              </TextField>
              {b && <Head one={b} named={false} />}
            </th>
          </tr>
        </thead>
        <tbody>
          {rows.map(({ label, of }) => {
            const [left, right] = [of(a), b ? of(b) : { text: '' }]
            const apart = left.text !== right.text
            return (
              <tr key={label} data-apart={apart}>
                <Typography component="th" scope="row" variant="body2" color="textSecondary" sx={{ fontWeight: 600 }}>
                  {label}
                </Typography>
                {[left, right].map(({ text, outcome }, i) => (
                  <Box
                    component="td"
                    key={i}
                    sx={{ color: apart ? 'text.primary' : 'text.secondary', fontWeight: apart ? 600 : 400 }}
                  >
                    {outcome !== undefined && outcome !== 'fits' && (
                      <Box component="span" sx={{ mr: 0.75, display: 'inline-block', verticalAlign: '-2px' }}>
                        <Plate
                          shape={OUTCOME_LOOK[outcome].plate}
                          colour={OUTCOME_LOOK[outcome].colour}
                          height={12}
                          title={t(`parts.outcome.${outcome}`)}
                        />
                      </Box>
                    )}
                    {text === '' ? '–' : text}
                  </Box>
                ))}
              </tr>
            )
          })}
        </tbody>
      </Box>
    </SheetDialog>
  )
}

function Head({ one, named = true }: { one: JudgedChain; named?: boolean }) {
  const { t } = useTranslation()
  const { plate, colour } = OUTCOME_LOOK[one.outcome]
  return (
    <Box sx={{ display: 'flex', alignItems: 'center', gap: 1 }}>
      <Plate shape={plate} colour={colour} height={15} />
      <Box>
        {named && <Typography sx={{ fontWeight: 700 }}>{chainName(one)}</Typography>}
        <Typography variant="body2" sx={{ color: colour, fontWeight: 600 }}>
          {t(`parts.outcome.${one.outcome}`)}
        </Typography>
      </Box>
    </Box>
  )
}
