import { Box, Button, Stack, TextField, Typography } from '@mui/material'
import { DRIVE_CLASSES, limitsProblem, SHIPPED_RULES, type DriveClass } from '@pelrin/core'
import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import type { HouseRules, RuleChange } from '@pelrin/contract'
import { day, number, percent } from '../../messages/format.ts'
import { typedNumber } from '../../messages/typedNumber.ts'
import { ChangePanel } from './ChangePanel.tsx'

export type Rule = HouseRules['rules'][number]

interface Typed {
  readonly name: string
  readonly watch: string
  readonly limits: Readonly<Record<DriveClass, { readonly change: string; readonly plan: string }>>
}

const typedOf = (rule: Rule): Typed => ({
  name: rule.name ?? '',
  watch: number(rule.watchShare, 2),
  limits: Object.fromEntries(
    DRIVE_CLASSES.map((one) => {
      const { change, plan } = rule.limits[one]
      return [one, { change: percent(change), plan: plan === undefined ? '' : percent(plan) }]
    }),
  ) as Typed['limits'],
})

/** What is wrong with the share of a limit from which on somebody looks more often. */
const watchProblem = (typed: string): 'number-malformed' | 'watch-range' | undefined => {
  const share = typedNumber(typed)
  return share === undefined ? 'number-malformed' : share < 0.3 || share > 1 ? 'watch-range' : undefined
}

/** The change that what is typed amounts to; null while it is not whole, or is no change. */
function changeOf(typed: Typed, rule: Rule): Extract<RuleChange, { kind: 'rule' }> | null {
  const watchShare = typedNumber(typed.watch)
  const limits = Object.fromEntries(
    DRIVE_CLASSES.map((one) => {
      const change = typedNumber(typed.limits[one].change)
      const plan = typedNumber(typed.limits[one].plan)
      return [one, { change: change ?? NaN, ...(typed.limits[one].plan.trim() === '' ? {} : { plan: plan ?? NaN }) }]
    }),
  ) as Rule['limits']
  const isWhole =
    watchShare !== undefined &&
    watchProblem(typed.watch) === undefined &&
    DRIVE_CLASSES.every((one) => limitsProblem(limits[one]) === null) &&
    (rule.school !== 'custom' || typed.name.trim() !== '')
  const isSame = JSON.stringify(typed) === JSON.stringify(typedOf(rule)) && rule.version > 0
  if (!isWhole || isSame) return null
  return {
    kind: 'rule',
    ruleId: rule.id,
    fromVersion: rule.version,
    name: rule.school === 'custom' ? typed.name.trim() : null,
    limits,
    watchShare,
  }
}

/** One house rule: its limits for each class of drive, who is judged by it, and every version there was. */
export function RuleEditor({ rule, onDone }: { rule: Rule; onDone: () => void }) {
  const { t } = useTranslation()
  const [typed, setTyped] = useState(() => typedOf(rule))
  const [problems, setProblems] = useState<Readonly<Record<string, string>>>({})
  const [act, setAct] = useState<'default' | 'retire' | null>(null)
  const shipped = SHIPPED_RULES.find((one) => one.school === rule.school)
  const isMarked = rule.school === 'as-marked'
  const set = (one: DriveClass, at: 'change' | 'plan', text: string): void => {
    setProblems({})
    setTyped((before) => ({
      ...before,
      limits: { ...before.limits, [one]: { ...before.limits[one], [at]: text } },
    }))
  }
  const wrongOf = (one: DriveClass, at: 'change' | 'plan'): string | undefined => {
    const { change, plan } = typed.limits[one]
    const found = limitsProblem({
      change: typedNumber(change) ?? NaN,
      ...(plan.trim() === '' ? {} : { plan: typedNumber(plan) ?? NaN }),
    })
    return found?.at === at ? t(`problems.${found.problem}`) : problems[`change.limits.${one}.${at}`]
  }
  const wrongWatch = watchProblem(typed.watch)
  const wrongName = typed.name.trim() === '' ? t('problems.text-missing') : problems['change.name']
  const typedChange = isMarked ? null : changeOf(typed, rule)
  const change: RuleChange | null =
    act === 'default'
      ? { kind: 'default', ruleId: rule.id }
      : act === 'retire'
        ? { kind: 'retire', ruleId: rule.id }
        : typedChange
  return (
    <Stack sx={{ gap: 1.75 }}>
      <Box>
        <Typography variant="h2">{rule.name ?? t(`school.${rule.school}`)}</Typography>
        <Typography color="textSecondary">
          {t(`rules.why.${rule.school}`)} {t('rules.bikes', { count: rule.bikes })}
        </Typography>
      </Box>
      {rule.school === 'custom' && (
        <TextField
          label={t('rules.name')}
          value={typed.name}
          onChange={(event) => setTyped((before) => ({ ...before, name: event.target.value }))}
          error={wrongName !== undefined}
          helperText={wrongName}
          slotProps={{ inputLabel: { shrink: true }, htmlInput: { maxLength: 60 } }}
        />
      )}
      {!isMarked && (
        <Box sx={{ display: 'grid', gridTemplateColumns: '1.2fr 1fr 1fr', gap: 1, alignItems: 'start' }}>
          <span />
          <Typography variant="body2" color="textSecondary">
            {t('rules.plan')}
          </Typography>
          <Typography variant="body2" color="textSecondary">
            {t('rules.change')}
          </Typography>
          {DRIVE_CLASSES.map((one) => (
            <Box key={one} sx={{ display: 'contents' }}>
              <Typography sx={{ pt: 0.75, lineHeight: 1.15 }}>{t(`driveClass.${one}`)}</Typography>
              {(['plan', 'change'] as const).map((at) => (
                <TextField
                  size="small"
                  key={at}
                  value={typed.limits[one][at]}
                  onChange={(event) => set(one, at, event.target.value)}
                  error={wrongOf(one, at) !== undefined}
                  helperText={wrongOf(one, at)}
                  slotProps={{
                    htmlInput: { 'aria-label': `${t(`driveClass.${one}`)}, ${t(`rules.${at}`)}`, inputMode: 'decimal' },
                    input: { endAdornment: '%' },
                  }}
                />
              ))}
            </Box>
          ))}
          <Typography sx={{ pt: 0.75, lineHeight: 1.15 }}>{t('rules.watch')}</Typography>
          <TextField
            size="small"
            value={typed.watch}
            onChange={(event) => setTyped((before) => ({ ...before, watch: event.target.value }))}
            error={wrongWatch !== undefined}
            helperText={wrongWatch && t(`problems.${wrongWatch}`)}
            slotProps={{ htmlInput: { 'aria-label': t('rules.watch'), inputMode: 'decimal' } }}
          />
          {shipped ? (
            <Button onClick={() => setTyped(typedOf({ ...rule, ...shipped }))}>{t('rules.shipped')}</Button>
          ) : (
            <span />
          )}
        </Box>
      )}
      {!rule.isDefault && !rule.retired && rule.version > 0 && (
        <Stack direction="row" sx={{ gap: 1, flexWrap: 'wrap' }}>
          <Button
            variant={act === 'default' ? 'contained' : 'outlined'}
            onClick={() => setAct((was) => (was === 'default' ? null : 'default'))}
          >
            {t('rules.makeDefault')}
          </Button>
          {rule.school === 'custom' && (
            <Button
              variant={act === 'retire' ? 'contained' : 'outlined'}
              onClick={() => setAct((was) => (was === 'retire' ? null : 'retire'))}
            >
              {t('rules.retire')}
            </Button>
          )}
        </Stack>
      )}
      <ChangePanel change={change} onProblems={setProblems} onDone={onDone} />
      {rule.versions.length > 0 && <Versions rule={rule} />}
    </Stack>
  )
}

/** What the rule was before, and why it was changed. */
function Versions({ rule }: { rule: Rule }) {
  const { t } = useTranslation()
  return (
    <Box component="section" aria-label={t('rules.versions')}>
      <Typography variant="h3" component="h3" color="textSecondary">
        {t('rules.versions')}
      </Typography>
      {rule.versions.map((one) => (
        <Typography key={one.version} variant="body2" sx={{ borderTop: 1, borderColor: 'divider', py: 0.5 }}>
          <b>{one.version}</b>, {day(one.validFrom)}
          {one.person !== null && `, ${one.person}`}:{' '}
          {DRIVE_CLASSES.map((driveClass) => {
            const { change, plan } = one.limits[driveClass]
            return plan === undefined ? percent(change) : `${percent(plan)} / ${percent(change)}`
          }).join(' · ')}
          {one.reason !== null && `. ${one.reason}`}
        </Typography>
      ))}
    </Box>
  )
}
