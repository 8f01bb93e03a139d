import { Box, Button, Link, Stack, Typography } from '@mui/material'
import { useState, type ReactNode } from 'react'
import { useHotkeys } from 'react-hotkeys-hook'
import { useTranslation } from 'react-i18next'
import { aheadOf, type ChainVerdict, type ExplainedInput, type Explanation, type School, type Unit } from '@pelrin/core'
import type { SpotMark } from '@pelrin/contract'
import type { TFunction } from 'i18next'
import { number, percent, temperature } from '../messages/format.ts'
import { intervalText } from './intervalText.ts'
import { KeyButton } from './KeyButton.tsx'
import { SchoolsRule } from './SchoolsRule.tsx'
import { SheetDialog } from './SheetDialog.tsx'
import { useChance } from './useChance.ts'
import { saidOf } from '../messages/said.ts'

/** Decimals a number of a unit is told with. */
const DECIMALS: Partial<Record<Unit, number>> = { in: 3, '%': 3, km: 0, mi: 0, probability: 3, rad: 4 }

/** A value of an explanation as it is told. */
function told(value: number | string, unit: Unit, t: TFunction): string {
  if (typeof value === 'string') return t(`why.value.${value}`, { defaultValue: t(`word.${value}`, value) })
  // A reading is never so sure that three decimals of certainty could be told.
  if (unit === 'probability' && value > 0.9995) return `> ${number(0.999, 3)}`
  if (unit === 'probability' && value < 0.0005) return `< ${number(0.001, 3)}`
  if (unit === '°C') return temperature(value)
  const name = t(`why.unit.${unit}`, { count: value })
  // A loop is no whole number of pitches; what closes is. A length that was never read closer is told as it was given.
  const decimals = unit === 'pitches' || unit === 'mm' ? (Number.isInteger(value) ? 0 : 2) : (DECIMALS[unit] ?? 0)
  return `${number(value, decimals)}${name === '' ? '' : `\u202f${name}`}`
}

function Figure({ value, unit }: { value: number | string; unit: Unit }) {
  const { t } = useTranslation()
  return <>{told(value, unit, t)}</>
}

function Input({ input }: { input: ExplainedInput }) {
  const { t } = useTranslation()
  return (
    <Box component="tr" sx={{ '& td': { py: 0.25, verticalAlign: 'baseline' } }}>
      <Box component="td" sx={{ fontStyle: 'italic', fontWeight: 600, width: 34 }}>
        {input.symbol}
      </Box>
      <Box component="td" sx={{ color: 'text.secondary', pr: 2 }}>
        {saidOf(t, 'why.meaning', input.meaning)}
      </Box>
      <Box component="td" sx={{ textAlign: 'right', fontWeight: 600, whiteSpace: 'nowrap' }}>
        <Figure value={input.value} unit={input.unit} />
      </Box>
    </Box>
  )
}

/** What a number comes from, in one sentence a mechanic would say: with what went in, by its meaning. */
function becauseOf({ rule, inputs, result }: Explanation, t: TFunction, lead?: string): string {
  const said = (value: number | string, unit: Unit): string =>
    unit === 'probability' && typeof value === 'number'
      ? t('verdict.chance', { n: number(100 * value, 0) })
      : told(value, unit, t)
  const values = Object.fromEntries(inputs.map(({ meaning, value, unit }) => [meaning, said(value, unit)]))
  const because = saidOf(t, 'why.because', rule, { ...values, defaultValue: '' })
  return `${lead ?? told(result.value, result.unit, t)}: ${because === '' ? saidOf(t, 'why.rule', rule) : because}`
}

/** The answer of a verdict, in one sentence: what was seen, where this bike is done, and how likely it is over. */
function useVerdictAnswer(): (verdict: ChainVerdict) => string {
  const { t } = useTranslation()
  const chance = useChance()
  return (verdict) => {
    const { worst, median, halfWidth, probabilityOver, limit, spotsMeasured, word } = verdict
    if (!worst || median === null || halfWidth === null || probabilityOver === null)
      return t(`why.answer.${word === 'not-measured-yet' ? 'new' : 'nothing'}`)
    const common = { count: spotsMeasured, limit: percent(limit), chance: chance(probabilityOver) }
    const ahead = aheadOf(verdict)
    if (ahead)
      return t('why.answer.ahead', {
        limit: percent(limit),
        value: percent(median),
        km: number(ahead.km, 0),
        chance: chance(ahead.chance),
      })
    return worst.value === undefined
      ? t('why.answer.gauge', { ...common, interval: intervalText(worst, t) })
      : t('why.answer.spots', { ...common, value: percent(median), u: percent(halfWidth) })
  }
}

/** One explanation of the core: the rule, what went in and what came out; its formula one key further. */
export function Explained({
  explanation,
  lead,
  formulas,
}: {
  explanation: Explanation
  lead?: ReactNode
  /** Whether formulas are shown. */
  formulas: boolean
}) {
  const { t } = useTranslation()
  const { rule, inputs, formula, result } = explanation
  return (
    <Box component="section" sx={{ borderTop: 1, borderColor: 'divider', py: 1.25 }}>
      <Typography variant="body2" sx={{ fontWeight: 500 }}>
        {lead}
        {saidOf(t, 'why.rule', rule)}
      </Typography>
      <Box component="table" sx={{ width: '100%', borderCollapse: 'collapse', fontSize: 'size.small', my: 0.5 }}>
        <tbody>
          {inputs.map((input, i) => (
            <Input key={i} input={input} />
          ))}
        </tbody>
      </Box>
      <Stack direction="row" sx={{ justifyContent: 'space-between', alignItems: 'baseline', gap: 2 }}>
        <Box component="code" sx={{ fontFamily: 'inherit', fontSize: 'size.small', fontStyle: 'italic' }}>
          {formulas ? formula : ''}
        </Box>
        <Typography sx={{ fontWeight: 700, whiteSpace: 'nowrap' }}>
          <Figure value={result.value} unit={result.unit} />
        </Typography>
      </Stack>
    </Box>
  )
}

/** An explanation in one line, opened by a press. */
function Folded({ explanation, lead, formulas }: { explanation: Explanation; lead: ReactNode; formulas: boolean }) {
  const { t } = useTranslation()
  const [open, setOpen] = useState(false)
  const { rule, result } = explanation
  if (open)
    return (
      <Box onClick={() => setOpen(false)}>
        <Explained explanation={explanation} lead={lead} formulas={formulas} />
      </Box>
    )
  return (
    <Button
      onClick={() => setOpen(true)}
      aria-expanded={false}
      sx={{
        display: 'flex',
        width: '100%',
        justifyContent: 'space-between',
        textAlign: 'left',
        gap: 2,
        px: 0,
        borderTop: 1,
        borderColor: 'divider',
        borderRadius: 0,
        minHeight: 44,
        fontWeight: 400,
        color: 'text.primary',
      }}
    >
      <Typography component="span" variant="body2" noWrap>
        {lead}
        {saidOf(t, 'why.rule', rule)}
      </Typography>
      <Typography component="span" variant="body2" sx={{ fontWeight: 700, whiteSpace: 'nowrap' }}>
        <Figure value={result.value} unit={result.unit} />
      </Typography>
    </Button>
  )
}

/** The dialog behind every "why?": the answer first, then the step that decided, the others folded. */
export function WhyDialog({
  open,
  onClose,
  explanations,
  answer,
  lead,
  note,
  verdict,
  school = 'by-speeds',
  marks = [],
}: {
  open: boolean
  onClose: () => void
  explanations: readonly Explanation[]
  /** The answer in one sentence; left out: the verdict's, or what the first number comes from. */
  answer?: string | undefined
  /** What it begins with, where the number alone would say nothing to a mechanic. */
  lead?: string | undefined
  note?: ReactNode
  /** Of a verdict: the other schools stand beside it on one wear rule. */
  verdict?: ChainVerdict
  school?: School
  marks?: readonly SpotMark[]
}) {
  const { t } = useTranslation()
  const [formulas, setFormulas] = useState(false)
  const verdictAnswer = useVerdictAnswer()
  useHotkeys('f', () => setFormulas((shown) => !shown), { enabled: open })
  const said = answer ?? (verdict ? verdictAnswer(verdict) : explanations[0] ? becauseOf(explanations[0], t, lead) : '')
  const decided = verdict ? explanations.find(({ rule }) => rule.split('-')[0] === verdict.decidedBy) : explanations[0]
  const leadOf = ({ rule }: Explanation): ReactNode =>
    /^D\d/.test(rule) ? (
      <Box component="span" sx={{ fontWeight: 700, mr: 1 }}>
        {rule.slice(0, 2)}
      </Box>
    ) : undefined
  const rest = explanations.filter((one) => one !== decided)
  return (
    <SheetDialog open={open} onClose={onClose} title={t('why.title')} maxWidth="sm" fullWidth>
      <Typography data-testid="answer" sx={{ fontSize: 'size.say', fontWeight: 600, lineHeight: 1.3, pb: 1.5 }}>
        {said}
      </Typography>
      {decided && <Explained explanation={decided} lead={leadOf(decided)} formulas={formulas} />}
      {rest.map((explanation, i) => (
        <Folded key={i} explanation={explanation} lead={leadOf(explanation)} formulas={formulas} />
      ))}
      {verdict && <SchoolsRule verdict={verdict} school={school} marks={marks} />}
      <Stack direction="row" sx={{ justifyContent: 'space-between', alignItems: 'baseline', gap: 2, mt: 1 }}>
        <Typography variant="body2" color="textSecondary">
          {note}
        </Typography>
        <KeyButton cap="F" size="small" onClick={() => setFormulas((shown) => !shown)} sx={{ flexShrink: 0 }}>
          {t(formulas ? 'why.withoutFormulas' : 'why.withFormulas')}
        </KeyButton>
      </Stack>
    </SheetDialog>
  )
}

/** The "why?" beside a number. */
export function Why({
  explanations,
  label,
  lead,
  note,
}: {
  explanations: readonly Explanation[]
  label?: string
  lead?: string
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
      <WhyDialog open={open} onClose={() => setOpen(false)} explanations={explanations} lead={lead} note={note} />
    </>
  )
}
