import { Box, Button, Checkbox, FormControlLabel, Stack, TextField, Typography } from '@mui/material'
import { useEffect, useRef, type RefObject } from 'react'
import { useTranslation } from 'react-i18next'
import { gradesOf, SLOT_RESULTS, wearItem, WEAR_RESULTS, type ToothGrade, type WearResult } from '@pelrin/core'
import type { ItemNow } from '@pelrin/contract'
import { day, distance, number, percent, shareText } from '../../messages/format.ts'
import { Cap } from '../../pieces/Cap.tsx'
import { FittedField, UNSAID_PART } from '../../pieces/FittedField.tsx'
import { KeyCap } from '../../pieces/KeyCap.tsx'
import { PulleyDrawing, ToothDrawing } from '../../pieces/ToothDrawing.tsx'
import { ink } from '../../theme/theme.ts'
import type { Line } from './passState.ts'

const COLOUR: Readonly<Record<WearResult, string>> = { good: 'steel', watch: 'brass', change: 'madder' }

/** One part of the bike in a pass: what was seen last, when it is due, and what is seen now. */
export function ItemRow({
  now,
  line,
  chosen,
  unit,
  under,
  wrong,
  onChoose,
  onSay,
  onBack,
}: {
  now: ItemNow
  line: Line
  chosen: boolean
  unit: 'km' | 'mi'
  /** What the chains did to it that ran on it; null where nothing can be told. */
  under: { readonly chains: number; readonly used: readonly [number, number, number] } | null
  wrong: { typed: string | undefined; minimum: string | undefined; fitted: string | undefined }
  onChoose: () => void
  onSay: (line: Line) => void
  onBack: (checkId: string) => void
}) {
  const { t } = useTranslation()
  const row = useRef<HTMLLIElement>(null)
  const field = useRef<HTMLInputElement>(null)
  const { kind } = wearItem(now.item)
  useEffect(() => {
    if (!chosen) return
    row.current?.scrollIntoView({ block: 'nearest' })
    // Digits of a rotor go into its field, or into the one beside it that was pointed at; those of all others choose.
    if (kind === 'rotor') {
      if (row.current?.contains(document.activeElement) !== true) field.current?.focus()
    } else if (document.activeElement instanceof HTMLInputElement) document.activeElement.blur()
  }, [chosen, kind])
  const name = t(`otherWear.item.${now.item}`)
  const [latest] = now.checks
  const gradeWords = useGradeWords(now.item)
  return (
    <Box
      component="li"
      ref={row}
      onClick={onChoose}
      aria-current={chosen ? 'true' : undefined}
      sx={{
        display: 'grid',
        gridTemplateColumns: { xs: 'minmax(0, 1fr)', md: '330px minmax(0, 1fr)' },
        gap: { xs: 0.5, md: 2 },
        alignItems: 'center',
        borderTop: 1,
        borderColor: 'divider',
        px: 1.5,
        py: 0.6,
        bgcolor: chosen ? 'background.paper' : 'transparent',
        boxShadow: chosen ? `inset 5px 0 ${ink('steel')}` : 'none',
      }}
    >
      <Box sx={{ minWidth: 0 }}>
        <Typography sx={{ fontWeight: 700, fontSize: 'size.lead' }}>
          {name}
          {now.result !== null && now.result !== 'good' && (
            <Box component="span" sx={{ color: ink(COLOUR[now.result] as 'steel') }}>
              , {t(`otherWear.result.${now.result}`)}
            </Box>
          )}
        </Typography>
        <Typography variant="body2" color="textSecondary">
          <Known now={now} unit={unit} />
          {under &&
            `; ${t('otherWear.underChains', {
              count: under.chains,
              ...(under.used[0] >= 1 ? { context: 'spent' } : {}),
              low: shareText(under.used[0]),
              high: shareText(under.used[2]),
            })}`}
          {latest && (
            <Button
              size="small"
              onClick={() => onBack(latest.id)}
              sx={{ minHeight: 24, py: 0, px: 0.75, ml: 0.5 }}
              aria-label={`${t('otherWear.back')}: ${name}`}
            >
              {t('otherWear.back')}
            </Button>
          )}
        </Typography>
      </Box>
      <Stack direction="row" sx={{ gap: 1, alignItems: 'center', flexWrap: 'wrap' }}>
        {kind === 'teeth' &&
          gradesOf(now.item).map((grade, i) => (
            <Choice
              key={grade}
              name={name}
              words={gradeWords(grade)}
              digit={i + 1}
              chosen={line.grade === grade}
              showKey={chosen}
              onChoose={() => onSay({ grade })}
            >
              {now.item === 'pulleys' ? (
                <Box sx={{ width: 64 }}>
                  <PulleyDrawing grade={grade} label={gradeWords(grade)} />
                </Box>
              ) : (
                <Box sx={{ width: 96 }}>
                  <ToothDrawing grade={grade} label={gradeWords(grade)} />
                </Box>
              )}
            </Choice>
          ))}
        {kind === 'look' &&
          WEAR_RESULTS.map((result, i) => (
            <Choice
              key={result}
              name={name}
              words={t(`otherWear.look.${result}`)}
              digit={i + 1}
              chosen={line.result === result}
              showKey={chosen}
              onChoose={() => onSay({ result })}
            />
          ))}
        {kind === 'rotor' && (
          <RotorFields now={now} line={line} field={field} wrong={wrong} onChoose={onChoose} onSay={onSay} />
        )}
        <Renewed now={now} line={line} chosen={chosen} wrong={wrong.fitted} onSay={onSay} />
      </Stack>
    </Box>
  )
}

/** A rotor's thickness and the minimum stamped on it, or what the slot gauge says. */
function RotorFields({
  now,
  line,
  field,
  wrong,
  onChoose,
  onSay,
}: {
  now: ItemNow
  line: Line
  field: RefObject<HTMLInputElement | null>
  wrong: { typed: string | undefined; minimum: string | undefined }
  onChoose: () => void
  onSay: (line: Line) => void
}) {
  const { t } = useTranslation()
  const name = t(`otherWear.item.${now.item}`)
  return (
    <>
      <TextField
        inputRef={field}
        label={t('otherWear.thickness')}
        value={line.typed ?? ''}
        onChange={(event) => onSay({ typed: event.target.value })}
        onFocus={onChoose}
        error={wrong.typed !== undefined}
        helperText={wrong.typed}
        slotProps={{ htmlInput: { inputMode: 'decimal', 'aria-label': `${name}: ${t('otherWear.thickness')}` } }}
        sx={{ width: 190 }}
      />
      <TextField
        label={t('otherWear.minimum')}
        value={line.minimumTyped ?? ''}
        placeholder={now.minimumMm === null ? '' : number(now.minimumMm, 2)}
        onChange={(event) => onSay({ minimumTyped: event.target.value })}
        onFocus={onChoose}
        error={wrong.minimum !== undefined}
        helperText={wrong.minimum}
        slotProps={{
          htmlInput: { inputMode: 'decimal', 'aria-label': `${name}: ${t('otherWear.minimum')}` },
        }}
        sx={{ width: 190 }}
      />
      {/* A slot as wide as the minimum: on or off, with no number. */}
      {SLOT_RESULTS.map((result) => (
        <Choice
          key={result}
          name={name}
          words={t(`otherWear.slot.${result}`)}
          digit={0}
          chosen={line.result === result}
          showKey={false}
          onChoose={() => onSay({ result })}
        />
      ))}
    </>
  )
}

/** How an item's teeth are told. */
function useGradeWords(item: ItemNow['item']) {
  const { t } = useTranslation()
  return (grade: ToothGrade): string =>
    item === 'pulleys' && (grade === 'as-new' || grade === 'worn' || grade === 'done')
      ? t(`otherWear.pulley.${grade}`)
      : t(`otherWear.grade.${grade}`)
}

/** Whether the part was changed for a new one at this look, and for which. */
function Renewed({
  now,
  line,
  chosen,
  wrong,
  onSay,
}: {
  now: ItemNow
  line: Line
  chosen: boolean
  wrong: string | undefined
  onSay: (line: Line) => void
}) {
  const { t } = useTranslation()
  if (line.grade === undefined && line.result === undefined && (line.typed ?? '') === '') return null
  return (
    <>
      {line.renewed === true && (
        <FittedField
          item={now.item}
          value={line.fitted ?? UNSAID_PART}
          wrong={wrong}
          onChange={(fitted) => onSay({ fitted })}
        />
      )}
      <FormControlLabel
        control={<Checkbox checked={line.renewed ?? false} onChange={(_, renewed) => onSay({ renewed })} />}
        label={
          <>
            {t('otherWear.renewed')} {chosen && <Cap of="otherWear.renewed" />}
          </>
        }
      />
    </>
  )
}

function Choice({
  name,
  words,
  digit,
  chosen,
  showKey,
  onChoose,
  children,
}: {
  name: string
  words: string
  digit: number
  chosen: boolean
  showKey: boolean
  onChoose: () => void
  children?: React.ReactNode
}) {
  return (
    <Button
      variant={chosen ? 'contained' : 'outlined'}
      aria-pressed={chosen}
      aria-label={`${name}: ${words}`}
      onClick={onChoose}
      sx={{
        px: 1.25,
        py: 0.5,
        gap: 1,
        flexDirection: children ? 'column' : 'row',
        lineHeight: 1.1,
        ...(children
          ? {
              bgcolor: 'background.paper',
              color: 'text.primary',
              borderWidth: chosen ? 3 : 1,
              borderStyle: 'solid',
              borderColor: ink(chosen ? 'steel' : 'line'),
            }
          : { minWidth: 128 }),
      }}
    >
      {children}
      <span>
        {words} {showKey && <KeyCap>{String(digit)}</KeyCap>}
      </span>
    </Button>
  )
}

/** What is known of an item: its last look, a rotor's forecast, and when it is due again. */
function Known({ now, unit }: { now: ItemNow; unit: 'km' | 'mi' }) {
  const { t } = useTranslation()
  const [latest] = now.checks
  const gradeWords = useGradeWords(now.item)
  const { rotor, dueKm, dueOn, minimumMm } = now
  const on =
    now.on &&
    (now.on.name === null
      ? t('otherWear.onSince', { context: 'unnamed', km: distance(now.on.km ?? 0, unit) })
      : t('otherWear.onSince', { name: now.on.name, km: distance(now.on.km ?? 0, unit) }))
  if (!latest) return on ?? t('otherWear.never')
  const seen =
    latest.mm === null
      ? t('otherWear.last', {
          what:
            latest.grade !== null
              ? gradeWords(latest.grade)
              : wearItem(now.item).kind === 'rotor' && (latest.result === 'good' || latest.result === 'change')
                ? t(`otherWear.slot.${latest.result}`)
                : t(`otherWear.look.${latest.result}`),
          date: day(latest.at),
        })
      : t('otherWear.lastRotor', { mm: percent(latest.mm), date: day(latest.at), minimum: percent(minimumMm ?? 0) })
  const foretold =
    rotor &&
    (now.result === 'change'
      ? t('otherWear.rotorUnder', {
          mm: percent(rotor.now.mm),
          u: percent(rotor.now.u),
          minimum: percent(minimumMm ?? 0),
        })
      : t('otherWear.rotorNow', {
          mm: percent(rotor.now.mm),
          u: percent(rotor.now.u),
          low: distance(rotor.left[0], unit),
          high: distance(rotor.left[2], unit),
        }))
  const due =
    dueKm === null
      ? null
      : dueKm <= 0
        ? t('otherWear.dueNow')
        : dueOn === null
          ? t('otherWear.dueNoDate', { km: distance(dueKm, unit) })
          : t('otherWear.due', { km: distance(dueKm, unit), date: day(dueOn) })
  return [on, seen, foretold, due].filter((part) => part !== null).join('; ')
}
