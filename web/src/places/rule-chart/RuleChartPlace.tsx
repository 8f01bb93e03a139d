import { Box, Button, GlobalStyles, Stack, TextField, ToggleButton, ToggleButtonGroup, Typography } from '@mui/material'
import { ruleChart, SHIPPED_RULES, type ChartCell, countsOf } from '@pelrin/core'
import { useMemo, useState } from 'react'
import { useTranslation } from 'react-i18next'
import { useHouseRules } from '../../api/queries.ts'
import { number, percent } from '../../messages/format.ts'
import { ink } from '../../theme/theme.ts'
import { fractionText, typedCounts, typedSteps } from './chartText.ts'
import { useTitle } from '../../pieces/useTitle.ts'

const UNITS = ['mm', 'in', '16', '32'] as const
type ChartUnit = (typeof UNITS)[number]
const PAPERS = ['A4', 'letter'] as const
const HIGHEST = 1

/** What a rule shows at each step of wear, for any counts: on the screen, and on paper for the wall. */
export function RuleChartPlace() {
  const { t } = useTranslation()
  const rules = useHouseRules()
  const [countsTyped, setCountsTyped] = useState('8 12 16 20 24 40 48 60 80 112')
  const [stepsTyped, setStepsTyped] = useState('')
  const [unit, setUnit] = useState<ChartUnit>('mm')
  const [paper, setPaper] = useState<(typeof PAPERS)[number]>('A4')
  useTitle(t('gauges.ruleChart'))
  const counts = typedCounts(countsTyped)
  /** The limits in force of the shop's own rule, where the pen stops. */
  const limits = useMemo(() => {
    const shops = rules.data?.rules.find(({ isDefault }) => isDefault)?.limits ?? SHIPPED_RULES[0].limits
    return [...new Set(Object.values(shops).map(({ change }) => change))]
  }, [rules.data])
  const ownSteps = typedSteps(stepsTyped)
  const shippedSteps = useMemo(() => {
    const tenths = Array.from({ length: Math.round(HIGHEST * 10) + 1 }, (_, i) => i / 10)
    return [...new Set([...tenths, ...limits])].sort((a, b) => a - b)
  }, [limits])
  const steps = ownSteps.ok && ownSteps.steps.length > 0 ? ownSteps.steps : shippedSteps
  const rows = counts.ok ? ruleChart({ counts: counts.counts, steps }) : []
  return (
    <Box sx={{ px: 2.75, pt: 1.5, pb: 3 }} className="rule-chart">
      <GlobalStyles
        styles={{
          '@media print': {
            '@page': { size: `${paper} landscape`, margin: '11mm' },
            'header, nav, .no-print, .MuiSnackbar-root': { display: 'none !important' },
            'html, body, #root, #root > *, main': { height: 'auto !important', overflow: 'visible !important' },
            '.rule-chart': { padding: '0 !important', color: '#000' },
            '.rule-chart table': { fontSize: '9.5pt !important', width: '100%' },
          },
        }}
      />
      <Stack direction="row" sx={{ gap: 2, alignItems: 'center', flexWrap: 'wrap', mb: 1.5 }} className="no-print">
        <Typography variant="h1" sx={{ mr: 1 }}>
          {t('gauges.ruleChart')}
        </Typography>
        <TextField
          label={t('chartOf.counts')}
          value={countsTyped}
          onChange={(event) => setCountsTyped(event.target.value)}
          error={!counts.ok}
          helperText={counts.ok ? undefined : t(`problems.${counts.problem}`)}
          sx={{ flex: 1.2, minWidth: 220 }}
        />
        <TextField
          label={t('chartOf.steps')}
          value={stepsTyped}
          placeholder={t('chartOf.stepsShipped')}
          onChange={(event) => setStepsTyped(event.target.value)}
          error={!ownSteps.ok}
          helperText={ownSteps.ok ? undefined : t(`problems.${ownSteps.problem}`)}
          sx={{ flex: 1, minWidth: 200 }}
        />
        <ToggleButtonGroup
          exclusive
          value={unit}
          aria-label={t('chartOf.unit')}
          onChange={(_, one: ChartUnit | null) => one !== null && setUnit(one)}
        >
          {UNITS.map((one) => (
            <ToggleButton key={one} value={one} sx={{ minHeight: 52, px: 2 }}>
              {t(`chartOf.unitOf.${one}`)}
            </ToggleButton>
          ))}
        </ToggleButtonGroup>
        <ToggleButtonGroup
          exclusive
          value={paper}
          aria-label={t('chartOf.paper')}
          onChange={(_, one: (typeof PAPERS)[number] | null) => one !== null && setPaper(one)}
        >
          {PAPERS.map((one) => (
            <ToggleButton key={one} value={one} sx={{ minHeight: 52, px: 2 }}>
              {t(`chartOf.paperOf.${one}`)}
            </ToggleButton>
          ))}
        </ToggleButtonGroup>
        <Button variant="contained" onClick={() => window.print()} sx={{ minHeight: 52 }}>
          {t('chartOf.print')}
        </Button>
      </Stack>
      <Typography sx={{ display: 'none', '@media print': { display: 'block', mb: 1, fontWeight: 700 } }}>
        {t('gauges.ruleChart')}, {t(`chartOf.title.${unit}`)}
      </Typography>
      <ChartTable steps={steps} limits={limits} rows={rows} unit={unit} />
      <Typography variant="body2" color="textSecondary" sx={{ mt: 1.5, maxWidth: 760 }}>
        {t(unit === '16' || unit === '32' ? 'chartOf.noteFraction' : 'chartOf.note')}
      </Typography>
    </Box>
  )
}

/** A row for each count, a column for each step; the shop's own limits stand out. */
function ChartTable({
  steps,
  limits,
  rows,
  unit,
}: {
  steps: readonly number[]
  limits: readonly number[]
  rows: ReturnType<typeof ruleChart>
  unit: ChartUnit
}) {
  const { t } = useTranslation()
  return (
    <Box sx={{ overflowX: 'auto' }} tabIndex={0} role="region" aria-label={t('gauges.ruleChart')}>
      <Box
        component="table"
        sx={{
          borderCollapse: 'collapse',
          width: '100%',
          fontSize: 'size.text',
          '& th, & td': {
            px: 1,
            py: 0.7,
            textAlign: 'right',
            whiteSpace: 'nowrap',
            borderTop: 1,
            borderColor: 'divider',
          },
        }}
      >
        <thead>
          <tr>
            <Box component="th" scope="col" sx={{ textAlign: 'left !important' }}>
              {t('chartOf.pitches')}
            </Box>
            {steps.map((step) => (
              <Box
                component="th"
                scope="col"
                key={step}
                sx={{ color: limits.includes(step) ? ink('madder') : 'inherit', fontWeight: 700 }}
              >
                {step === 0 ? t('measure.drawNew') : percent(step)}
              </Box>
            ))}
          </tr>
        </thead>
        <tbody>
          {rows.map(({ pitches, cells }) => (
            <tr key={pitches}>
              <Box component="th" scope="row" sx={{ textAlign: 'left !important' }}>
                {pitches}
                <Box component="span" sx={{ color: 'text.secondary', fontWeight: 400 }}>
                  {' '}
                  {t('chartOf.links', { count: countsOf(pitches).wholeLinks })}
                </Box>
              </Box>
              {cells.map((cell) => (
                <Box
                  component="td"
                  key={cell.elongation}
                  sx={{
                    fontWeight: limits.includes(cell.elongation) ? 700 : 400,
                    color: limits.includes(cell.elongation) ? ink('madder') : 'inherit',
                  }}
                >
                  <Cell cell={cell} unit={unit} />
                </Box>
              ))}
            </tr>
          ))}
        </tbody>
      </Box>
    </Box>
  )
}

function Cell({ cell, unit }: { cell: ChartCell; unit: ChartUnit }) {
  if (unit === 'mm') return <>{number(cell.lengthMm, 1)}</>
  if (unit === 'in') return <>{number(cell.inches, 3)}</>
  const nearest = unit === '16' ? cell.sixteenths : cell.thirtySeconds
  const off = nearest.offPercent
  return (
    <>
      {fractionText(nearest)}
      <Box component="span" sx={{ display: 'block', fontSize: 'size.cap', color: 'text.secondary', fontWeight: 400 }}>
        {off > 0 ? '+' : ''}
        {number(off, 2)}
      </Box>
    </>
  )
}
