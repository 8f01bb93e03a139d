import { Box, Link, Stack, Typography } from '@mui/material'
import { useState, type ReactNode } from 'react'
import { useTranslation } from 'react-i18next'
import type { ChainVerdict, ExplainedInput, Explanation, School, Unit } from '@pelrin/core'
import type { SpotMark } from '@pelrin/contract'
import { number } from '../messages/format.ts'
import { SchoolsRule } from './SchoolsRule.tsx'
import { SheetDialog } from './SheetDialog.tsx'

/** Decimals a number of a unit is told with. */
const DECIMALS: Partial<Record<Unit, number>> = { mm: 2, in: 3, '%': 3, km: 0, mi: 0, probability: 3 }

function Told({ value, unit }: { value: number | string; unit: Unit }) {
  const { t } = useTranslation()
  if (typeof value === 'string') return <>{t(`why.value.${value}`, { defaultValue: t(`word.${value}`, value) })}</>
  // A reading is never so sure that three decimals of certainty could be told.
  if (unit === 'probability' && value > 0.9995) return <>&gt; {number(0.999, 3)}</>
  if (unit === 'probability' && value < 0.0005) return <>&lt; {number(0.001, 3)}</>
  const decimals = DECIMALS[unit] ?? 0
  const name = t(`why.unit.${unit}`, { count: value })
  return (
    <>
      {number(value, decimals)}
      {name === '' ? '' : `\u202f${name}`}
    </>
  )
}

function Input({ input }: { input: ExplainedInput }) {
  const { t } = useTranslation()
  return (
    <Box component="tr" sx={{ '& td': { py: 0.25, verticalAlign: 'baseline' } }}>
      <Box component="td" sx={{ fontStyle: 'italic', fontWeight: 600, width: 34 }}>
        {input.symbol}
      </Box>
      <Box component="td" sx={{ color: 'text.secondary', pr: 2 }}>
        {t(`why.meaning.${input.meaning}`)}
      </Box>
      <Box component="td" sx={{ textAlign: 'right', fontWeight: 600, whiteSpace: 'nowrap' }}>
        <Told value={input.value} unit={input.unit} />
      </Box>
    </Box>
  )
}

/** One explanation of the core, in a few lines: the rule, what went in, the formula, what came out. */
export function Explained({ explanation, lead }: { explanation: Explanation; lead?: ReactNode }) {
  const { t } = useTranslation()
  const { rule, inputs, formula, result } = explanation
  return (
    <Box component="section" sx={{ borderTop: 1, borderColor: 'divider', py: 1.25 }}>
      <Typography variant="body2" sx={{ fontWeight: 500 }}>
        {lead}
        {t(`why.rule.${rule}`)}
      </Typography>
      <Box component="table" sx={{ width: '100%', borderCollapse: 'collapse', fontSize: 15, my: 0.5 }}>
        <tbody>
          {inputs.map((input, i) => (
            <Input key={i} input={input} />
          ))}
        </tbody>
      </Box>
      <Stack direction="row" sx={{ justifyContent: 'space-between', alignItems: 'baseline', gap: 2 }}>
        <Box component="code" sx={{ fontFamily: 'inherit', fontSize: 15.5, fontStyle: 'italic' }}>
          {formula}
        </Box>
        <Typography sx={{ fontWeight: 700, whiteSpace: 'nowrap' }}>
          <Told value={result.value} unit={result.unit} />
        </Typography>
      </Stack>
    </Box>
  )
}

/** The dialog behind every "why?". */
export function WhyDialog({
  open,
  onClose,
  explanations,
  note,
  verdict,
  school = 'by-speeds',
  marks = [],
}: {
  open: boolean
  onClose: () => void
  explanations: readonly Explanation[]
  note?: ReactNode
  /** Of a verdict: the other schools stand beside it on one wear rule. */
  verdict?: ChainVerdict
  school?: School
  marks?: readonly SpotMark[]
}) {
  const { t } = useTranslation()
  return (
    <SheetDialog open={open} onClose={onClose} title={t('why.title')} maxWidth="sm" fullWidth>
      {explanations.map((explanation, i) => (
        <Explained
          key={i}
          explanation={explanation}
          lead={
            /^D\d/.test(explanation.rule) ? (
              <Box component="span" sx={{ fontWeight: 700, mr: 1 }}>
                {explanation.rule.slice(0, 2)}
              </Box>
            ) : undefined
          }
        />
      ))}
      {verdict && <SchoolsRule verdict={verdict} school={school} marks={marks} />}
      {note && (
        <Typography variant="body2" color="textSecondary" sx={{ mt: 1 }}>
          {note}
        </Typography>
      )}
    </SheetDialog>
  )
}

/** The "why?" beside a number. */
export function Why({
  explanations,
  label,
  note,
}: {
  explanations: readonly Explanation[]
  label?: string
  note?: ReactNode
}) {
  const { t } = useTranslation()
  const [open, setOpen] = useState(false)
  if (explanations.length === 0) return null
  return (
    <>
      <Link
        component="button"
        type="button"
        onClick={() => setOpen(true)}
        aria-label={label === undefined ? undefined : `${t('why.title')} ${label}`}
        sx={{ font: 'inherit', fontWeight: 500, verticalAlign: 'baseline', minHeight: 24, px: 0.25 }}
      >
        {t('why.title')}
      </Link>
      <WhyDialog open={open} onClose={() => setOpen(false)} explanations={explanations} note={note} />
    </>
  )
}
