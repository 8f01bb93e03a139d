import { Box, Button, Checkbox, FormControlLabel, Stack, TextField, Typography } from '@mui/material'
import {
  DEFAULTS,
  DRIVE_CLASSES,
  limitsProblem,
  SHIPPED_RULES,
  sprocketMarks,
  sprocketMarksProblem,
  type DriveClass,
} from '@pelrin/core'
import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import type { HouseRules, RuleChange } from '@pelrin/contract'
import { day, number, percent } from '../../messages/format.ts'
import { typedNumber } from '../../messages/typedNumber.ts'
import { ChangePanel } from './ChangePanel.tsx'
import { MarkedBy } from './MarkedBy.tsx'

export type Rule = HouseRules['rules'][number]

interface Typed {
  readonly name: string
  readonly watch: string
  readonly limits: Readonly<Record<DriveClass, { readonly change: string; readonly plan: string }>>
  /** Sprocket marks of its own, where it has any. */
  readonly marks: Readonly<Record<DriveClass, { readonly sprockets: string; readonly everything: string }>> | null
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
  marks: rule.sprocketMarks ? marksOf(rule.sprocketMarks) : null,
})

const marksOf = (marks: NonNullable<Rule['sprocketMarks']>): NonNullable<Typed['marks']> =>
  Object.fromEntries(
    DRIVE_CLASSES.map((one) => [
      one,
      { sprockets: percent(marks[one].sprockets), everything: percent(marks[one].everything) },
    ]),
  ) as NonNullable<Typed['marks']>

/** The marks that are typed, as numbers; null where the rule has none of its own. */
const marksTyped = ({ marks }: Typed): NonNullable<Rule['sprocketMarks']> | null =>
  marks &&
  (Object.fromEntries(
    DRIVE_CLASSES.map((one) => [
      one,
      {
        sprockets: typedNumber(marks[one].sprockets) ?? NaN,
        everything: typedNumber(marks[one].everything) ?? NaN,
      },
    ]),
  ) as NonNullable<Rule['sprocketMarks']>)

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
  const sprocketMarks = marksTyped(typed)
  const isWhole =
    (sprocketMarks === null || DRIVE_CLASSES.every((one) => sprocketMarksProblem(sprocketMarks[one]) === null)) &&
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
    sprocketMarks,
  }
}

/** One house rule: its limits for each class of drive, who is judged by it, and every version there was. */
export function RuleEditor({ rule, onDone }: { rule: Rule; onDone: () => void }) {
  const { t } = useTranslation()
  const [typed, setTyped] = useState(() => typedOf(rule))
  const [problems, setProblems] = useState<Readonly<Record<string, string>>>({})
  const [act, setAct] = useState<'default' | 'retire' | null>(null)
  const [marked, setMarked] = useState(rule.markedInstrumentId ?? '')
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
    act === 'default' || (isMarked && rule.isDefault && marked !== (rule.markedInstrumentId ?? ''))
      ? isMarked && marked === ''
        ? null
        : { kind: 'default', ruleId: rule.id, markedInstrumentId: isMarked ? marked : null }
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
          slotProps={{ htmlInput: { maxLength: 60 } }}
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
      {rule.school === 'custom' && (
        <OwnMarks
          typed={typed}
          rule={rule}
          onChange={(marks) => {
            setProblems({})
            setTyped((before) => ({ ...before, marks }))
          }}
        />
      )}
      {isMarked && (act === 'default' || rule.isDefault) && <MarkedBy value={marked} onChange={setMarked} />}
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

/** Where sprockets are suspect by a rule of the shop's own: by the drive, unless it says otherwise. */
function OwnMarks({
  typed: { marks },
  rule,
  onChange,
}: {
  typed: Typed
  rule: Rule
  onChange: (marks: Typed['marks']) => void
}) {
  const { t } = useTranslation()
  const shipped = Object.fromEntries(DRIVE_CLASSES.map((one) => [one, sprocketMarks(one, DEFAULTS)])) as NonNullable<
    Rule['sprocketMarks']
  >
  return (
    <Box>
      <FormControlLabel
        control={
          <Checkbox
            checked={marks !== null}
            onChange={(_, on) => onChange(on ? marksOf(rule.sprocketMarks ?? shipped) : null)}
          />
        }
        label={t('rules.ownMarks')}
      />
      {marks && (
        <Box sx={{ display: 'grid', gridTemplateColumns: '1.2fr 1fr 1fr', gap: 1, alignItems: 'start' }}>
          <span />
          <Typography variant="body2" color="textSecondary">
            {t('rules.sprockets')}
          </Typography>
          <Typography variant="body2" color="textSecondary">
            {t('rules.everything')}
          </Typography>
          {DRIVE_CLASSES.map((one) => {
            const found = sprocketMarksProblem({
              sprockets: typedNumber(marks[one].sprockets) ?? NaN,
              everything: typedNumber(marks[one].everything) ?? NaN,
            })
            return (
              <Box key={one} sx={{ display: 'contents' }}>
                <Typography sx={{ pt: 0.75, lineHeight: 1.15 }}>{t(`driveClass.${one}`)}</Typography>
                {(['sprockets', 'everything'] as const).map((at) => (
                  <TextField
                    size="small"
                    key={at}
                    value={marks[one][at]}
                    onChange={(event) => onChange({ ...marks, [one]: { ...marks[one], [at]: event.target.value } })}
                    error={found?.at === at}
                    helperText={found?.at === at && t(`problems.${found.problem}`)}
                    slotProps={{
                      htmlInput: {
                        'aria-label': `${t(`driveClass.${one}`)}, ${t(`rules.${at}`)}`,
                        inputMode: 'decimal',
                      },
                      input: { endAdornment: '%' },
                    }}
                  />
                ))}
              </Box>
            )
          })}
        </Box>
      )}
    </Box>
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
