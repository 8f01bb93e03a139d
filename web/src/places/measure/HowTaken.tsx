import {
  Box,
  Checkbox,
  Collapse,
  FormControlLabel,
  MenuItem,
  Stack,
  TextField,
  ToggleButton,
  ToggleButtonGroup,
  Typography,
} from '@mui/material'
import { CELSIUS_RANGE, entryForm, temperatureCorrection, hangsWholeChain, measuresNothing } from '@pelrin/core'
import { useState } from 'react'
import { useHotkeys } from 'react-hotkeys-hook'
import { useTranslation } from 'react-i18next'
import type { Instrument, Person } from '@pelrin/contract'
import { number } from '../../messages/format.ts'
import { typedNumber } from '../../messages/typedNumber.ts'
import { KeyButton } from '../../pieces/KeyButton.tsx'
import { conditionsOf, type Draft } from './draft.ts'
import { degrees, typedCelsius } from '../../messages/typedTemperature.ts'

/** Whether a temperature that was typed is one a workshop can have. */
export const celsiusWrong = (typed: string): boolean => {
  if (typed.trim() === '') return false
  const value = typedCelsius(typed)
  return value === undefined || value < CELSIUS_RANGE.lowest || value > CELSIUS_RANGE.highest
}
export const preloadWrong = (typed: string): boolean => {
  if (typed.trim() === '') return false
  const value = typedNumber(typed)
  return value === undefined || value < 0 || value > 50
}

/** Where on the chain, under what load, at which temperature, by whom: told in one line, changed underneath it. */
export function HowTaken({
  draft,
  instrument,
  people,
  writer,
  preloadKg,
  isNew,
  onChange,
}: {
  draft: Draft
  instrument: Instrument
  people: readonly Person[]
  writer: Person
  /** The preload assumed where none is told, kg. */
  preloadKg: number
  /** The chain was fitted a little while ago: the reading may be its baseline. */
  isNew: boolean
  onChange: (part: Partial<Draft>) => void
}) {
  const { t } = useTranslation()
  const [open, setOpen] = useState(false)
  useHotkeys('alt+o', () => setOpen((was) => !was), { enableOnFormTags: true, preventDefault: true })
  const isLength = entryForm(instrument.kind) === 'length'
  const isMarks = entryForm(instrument.kind) === 'marks'
  const { correction } = temperatureCorrection(instrument.material ?? 'steel', conditionsOf(draft))
  const warm = draft.ruleCelsius !== '' || draft.chainCelsius !== ''
  const reader = people.find((person) => person.id === draft.readerId) ?? writer
  const told = [
    draft.source === 'customer' ? t('measure.source.customer') : null,
    t(`measure.run.${draft.run}`),
    t(`measure.load.${draft.load}`),
    hangsWholeChain(instrument.kind) ? `${draft.preloadKg || number(preloadKg, 0)} kg` : null,
    isLength && warm ? t('measure.temperatureAdds', { percent: number(correction, 3) }) : null,
    draft.named ? t('measure.namedShort') : null,
    draft.baseline ? t('measure.baselineShort') : null,
    draft.note.trim() === '' ? null : draft.note.trim(),
    reader.name,
  ].filter((part) => part !== null)
  return (
    <Box>
      <KeyButton
        cap="Alt O"
        onClick={() => setOpen((was) => !was)}
        aria-expanded={open}
        sx={{
          px: 0.5,
          justifyContent: 'flex-start',
          textAlign: 'left',
          width: '100%',
          fontWeight: 500,
          lineHeight: 1.2,
        }}
      >
        <Box component="span" sx={{ flex: 1 }}>
          {told.join(', ')}
        </Box>
      </KeyButton>
      <Collapse in={open} unmountOnExit timeout={0}>
        <Stack sx={{ gap: 1.25, pt: 1 }}>
          <Stack direction="row" sx={{ gap: 1 }}>
            <Choice
              label={t('measure.runAsk')}
              value={draft.run}
              options={['lower', 'upper']}
              name={(one) => t(`measure.run.${one}`)}
              onChoose={(run) => onChange({ run })}
            />
            <Choice
              label={t('measure.loadAsk')}
              value={draft.load}
              options={['tensioned', 'slack']}
              name={(one) => t(`measure.load.${one}`)}
              onChoose={(load) => onChange({ load })}
            />
          </Stack>
          <Stack direction="row" sx={{ gap: 1 }}>
            <Choice
              label={t('measure.sourceAsk')}
              value={draft.source}
              options={['shop', 'customer']}
              name={(one) => t(`measure.source.${one}`)}
              onChoose={(source) => onChange({ source })}
            />
            <TextField
              select
              label={t('measure.reader')}
              value={reader.id}
              onChange={(event) => onChange({ readerId: event.target.value === writer.id ? null : event.target.value })}
              sx={{ flex: 1 }}
              size="small"
            >
              {people.map((person) => (
                <MenuItem key={person.id} value={person.id}>
                  {person.name}
                </MenuItem>
              ))}
            </TextField>
          </Stack>
          <TextField
            label={t(draft.source === 'customer' ? 'measure.noteTool' : isMarks ? 'measure.noteTip' : 'measure.note')}
            value={draft.note}
            onChange={(event) => onChange({ note: event.target.value })}
            size="small"
            slotProps={{ htmlInput: { maxLength: 500, autoComplete: 'off' } }}
          />
          {isLength && <Warmth draft={draft} instrument={instrument} preloadKg={preloadKg} onChange={onChange} />}
          {hangsWholeChain(instrument.kind) && (
            <FormControlLabel
              control={
                <Checkbox
                  checked={draft.linkIncluded}
                  onChange={(event) => onChange({ linkIncluded: event.target.checked })}
                />
              }
              label={t('measure.linkIncluded')}
            />
          )}
          {!hangsWholeChain(instrument.kind) && !measuresNothing(instrument.kind) && (
            <FormControlLabel
              control={
                <Checkbox checked={draft.named} onChange={(event) => onChange({ named: event.target.checked })} />
              }
              label={t('measure.named')}
            />
          )}
          {isNew && (
            <FormControlLabel
              control={
                <Checkbox checked={draft.baseline} onChange={(event) => onChange({ baseline: event.target.checked })} />
              }
              label={t('measure.baseline')}
            />
          )}
        </Stack>
      </Collapse>
    </Box>
  )
}

/** How warm rule and chain are, what a whole chain hangs from, and what that adds. */
function Warmth({
  draft,
  instrument,
  preloadKg,
  onChange,
}: {
  draft: Draft
  instrument: Instrument
  preloadKg: number
  onChange: (part: Partial<Draft>) => void
}) {
  const { t } = useTranslation()
  const { correction } = temperatureCorrection(instrument.material ?? 'steel', conditionsOf(draft))
  const warm = draft.ruleCelsius !== '' || draft.chainCelsius !== ''
  return (
    <>
      <Stack direction="row" sx={{ gap: 1 }}>
        <Degrees
          label={t('measure.ruleCelsius')}
          typed={draft.ruleCelsius}
          onChange={(ruleCelsius) => onChange({ ruleCelsius })}
        />
        <Degrees
          label={t('measure.chainCelsius')}
          typed={draft.chainCelsius}
          onChange={(chainCelsius) => onChange({ chainCelsius })}
        />
        {hangsWholeChain(instrument.kind) && (
          <TextField
            label={t('measure.preload')}
            value={draft.preloadKg}
            placeholder={number(preloadKg, 0)}
            error={preloadWrong(draft.preloadKg)}
            helperText={preloadWrong(draft.preloadKg) ? t('problems.preload-range') : undefined}
            onChange={(event) => onChange({ preloadKg: event.target.value })}
            size="small"
            slotProps={{
              htmlInput: { inputMode: 'decimal', autoComplete: 'off' },
              input: { endAdornment: 'kg' },
            }}
            sx={{ flex: 1 }}
          />
        )}
      </Stack>
      <Typography variant="body2" color="textSecondary">
        {warm
          ? t('measure.temperatureSays', {
              material: t(`material.${instrument.material ?? 'steel'}`),
              percent: number(correction, 3),
            })
          : t('measure.temperatureNone', { material: t(`material.${instrument.material ?? 'steel'}`) })}
      </Typography>
    </>
  )
}

function Choice<One extends string>({
  label,
  value,
  options,
  name,
  onChoose,
}: {
  label: string
  value: One
  options: readonly One[]
  name: (one: One) => string
  onChoose: (one: One) => void
}) {
  return (
    <ToggleButtonGroup
      exclusive
      value={value}
      aria-label={label}
      onChange={(_, one: One | null) => one !== null && onChoose(one)}
      sx={{ flex: 1 }}
    >
      {options.map((one) => (
        <ToggleButton key={one} value={one} sx={{ flex: 1, lineHeight: 1.1, fontSize: 'size.small' }}>
          {name(one)}
        </ToggleButton>
      ))}
    </ToggleButtonGroup>
  )
}

function Degrees({ label, typed, onChange }: { label: string; typed: string; onChange: (typed: string) => void }) {
  const { t } = useTranslation()
  const wrong = celsiusWrong(typed)
  return (
    <TextField
      label={label}
      value={typed}
      error={wrong}
      helperText={wrong ? t('problems.celsius-range') : undefined}
      onChange={(event) => onChange(event.target.value)}
      size="small"
      slotProps={{
        htmlInput: { inputMode: 'decimal', autoComplete: 'off', maxLength: 6 },
        input: { endAdornment: degrees() },
      }}
      sx={{ flex: 1 }}
    />
  )
}
