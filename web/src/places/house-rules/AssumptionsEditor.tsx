import { Box, Button, Stack, TextField, Typography } from '@mui/material'
import { ASSUMPTIONS, assumptionProblem, shippedValue, type Assumption } from '@pelrin/core'
import { memo, useCallback, useMemo, useState } from 'react'
import { useTranslation } from 'react-i18next'
import type { HouseRules, RuleChange } from '@pelrin/contract'
import { day, number } from '../../messages/format.ts'
import { saidOf } from '../../messages/said.ts'
import { ink } from '../../theme/theme.ts'
import { shownIn, typedIn, unitIn } from './assumedIn.ts'
import { ChangePanel } from './ChangePanel.tsx'

/** As many as it was declared with. */
const decimalsOf = (value: number): number => String(value).split('.')[1]?.length ?? 0

const declared = (key: string): Assumption => ASSUMPTIONS.find((one) => one.key === key)!

/** Every first word of a key: none is left out of the screen. */
const GROUPS = [...new Set(ASSUMPTIONS.map(({ key }) => key.split('.')[0]!))]

/** Every value that is assumed, with its unit and meaning, what is shipped, and a way back to it. */
export function AssumptionsEditor({
  assumptions,
  onDone,
}: {
  assumptions: HouseRules['assumptions']
  onDone: () => void
}) {
  const { t } = useTranslation()
  const { overrides, version, versions } = assumptions
  const [typed, setTyped] = useState<Readonly<Record<string, string>>>({})
  const keptOf = (key: string): number => overrides[key] ?? shippedValue(key)
  const onType = useCallback((key: string, text: string) => setTyped((before) => ({ ...before, [key]: text })), [])
  const change = useMemo((): RuleChange | null => {
    const next = new Map(Object.entries(overrides))
    for (const [key, text] of Object.entries(typed)) {
      const to = typedIn(declared(key), text, [overrides[key] ?? shippedValue(key), shippedValue(key)]) ?? NaN
      if (assumptionProblem(key, to) !== null) return null
      if (to === shippedValue(key)) next.delete(key)
      else next.set(key, to)
    }
    const same = JSON.stringify(sorted([...next])) === JSON.stringify(sorted(Object.entries(overrides)))
    return same ? null : { kind: 'assumptions', fromVersion: version, overrides: Object.fromEntries(next) }
  }, [typed, overrides, version])
  return (
    <Box sx={{ display: 'grid', gridTemplateColumns: { xs: '1fr', md: 'minmax(0, 1fr) 400px' }, gap: 3 }}>
      <Stack sx={{ gap: 2.5 }}>
        {GROUPS.map((group) => (
          <Box component="section" key={group} aria-label={saidOf(t, 'rules.group', group)}>
            <Typography variant="h3" component="h2" color="textSecondary" sx={{ mb: 0.5 }}>
              {saidOf(t, 'rules.group', group)}
            </Typography>
            {ASSUMPTIONS.filter(({ key }) => key.startsWith(`${group}.`)).map((one) => (
              <ValueRow
                key={one.key}
                one={one}
                kept={keptOf(one.key)}
                text={typed[one.key] ?? shownIn(one, keptOf(one.key))}
                onType={onType}
              />
            ))}
          </Box>
        ))}
      </Stack>
      <Stack sx={{ gap: 2, position: { md: 'sticky' }, top: 16, alignSelf: 'start' }}>
        <ChangePanel
          change={change}
          onDone={() => {
            setTyped({})
            onDone()
          }}
        />
        {versions.length > 0 && (
          <Box component="section" aria-label={t('rules.versions')}>
            <Typography variant="h3" component="h3" color="textSecondary">
              {t('rules.versions')}
            </Typography>
            {versions.map((one) => (
              <Typography key={one.version} variant="body2" sx={{ borderTop: 1, borderColor: 'divider', py: 0.5 }}>
                <b>{one.version}</b>, {day(one.validFrom)}, {one.person}: {one.reason} (
                {t('rules.ownValues', { count: Object.keys(one.overrides).length })})
              </Typography>
            ))}
          </Box>
        )}
      </Stack>
    </Box>
  )
}

/** One value: what it means, what is typed, and a way back to what is shipped. Of all of them only the one that is typed into is drawn anew. */
const ValueRow = memo(function ValueRow({
  one,
  kept,
  text,
  onType,
}: {
  one: Assumption
  /** What it is now, as it is kept. */
  kept: number
  text: string
  onType: (key: string, text: string) => void
}) {
  const { t } = useTranslation()
  const { key, unit, lowest, highest, shipped, actsOn } = one
  const value = typedIn(one, text, [kept, shipped])
  const problem = assumptionProblem(key, value ?? NaN)
  const isOwn = value !== shipped
  const [least, most] = [Number(shownIn(one, lowest)), Number(shownIn(one, highest))]
  const range = { lowest: number(least, decimalsOf(least)), highest: number(most, decimalsOf(most)) }
  return (
    <Box
      sx={{
        display: 'grid',
        gridTemplateColumns: 'minmax(0, 1fr) 150px 168px',
        gap: 1.5,
        alignItems: 'center',
        borderTop: 1,
        borderColor: 'divider',
        py: 0.5,
      }}
    >
      <Box>
        <Typography variant="body2" id={`assumed-${key}`}>
          {t(`assumed.${key.replaceAll('.', '-')}`)}
        </Typography>
        <Typography variant="caption" component="p" color="textSecondary" sx={{ lineHeight: 1.2 }}>
          {t('rules.between', { ...range, on: t(`rules.actsOn.${actsOn}`) })}
        </Typography>
      </Box>
      <TextField
        size="small"
        value={text}
        onChange={(event) => onType(key, event.target.value)}
        error={problem !== null}
        helperText={problem === null ? undefined : t(`problems.${problem}`, range)}
        slotProps={{
          htmlInput: { 'aria-labelledby': `assumed-${key}`, inputMode: 'decimal' },
          input: { endAdornment: unitIn(one) ?? t(`rules.unit.${unit}`) },
        }}
        sx={{ '& input': { fontWeight: isOwn ? 700 : 400, color: isOwn ? ink('steel') : undefined } }}
      />
      {isOwn ? (
        <Button size="small" onClick={() => onType(key, shownIn(one, shipped))}>
          {t('rules.back', { value: shownIn(one, shipped) })}
        </Button>
      ) : (
        <Typography variant="body2" color="textSecondary">
          {t('rules.asShipped')}
        </Typography>
      )}
    </Box>
  )
})

const sorted = (entries: [string, number][]): [string, number][] => entries.sort(([a], [b]) => (a < b ? -1 : 1))
