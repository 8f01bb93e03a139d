import { Alert, Button, Checkbox, FormControlLabel, MenuItem, Stack, TextField } from '@mui/material'
import { entryForm, INSTRUMENT_KINDS, RULE_MATERIALS, type InstrumentKind } from '@pelrin/core'
import { useQueryClient } from '@tanstack/react-query'
import { Controller, useForm, useWatch } from 'react-hook-form'
import { useTranslation } from 'react-i18next'
import { useNavigate } from 'react-router'
import { v7 } from 'uuid'
import { endpoints, type InstrumentHistory } from '@pelrin/contract'
import { ask, ProblemError } from '../../api/client.ts'
import { keys } from '../../api/queries.ts'
import { useSurroundings } from '../../app/surroundings.ts'
import { typedNumber } from '../../messages/typedNumber.ts'
import { SheetDialog } from '../../pieces/SheetDialog.tsx'
import { useState } from 'react'

/** A record as typed. */
interface Fields {
  kind: InstrumentKind
  name: string
  u: string
  bias: string
  biasU: string
  marks: string
  changeMark: string
  material: (typeof RULE_MATERIALS)[number]
  rollerMm: string
  seesRollerWear: boolean
  standing: 'in-use' | 'out-of-use'
  connection: string
  reason: string
}

const text = (value: number | null | undefined): string => (value == null ? '' : String(value))

function defaultsOf(history: InstrumentHistory | null): Fields {
  const known = history?.instrument
  return {
    kind: known?.kind ?? 'steel-rule',
    name: known?.name ?? '',
    u: text(known?.uMm ?? known?.u),
    bias: text(known?.bias ?? 0),
    biasU: text(known?.biasU ?? 0),
    marks: known?.marks?.join(' ') ?? '',
    changeMark: text(known?.changeMark),
    material: known?.material ?? 'steel',
    rollerMm: text(known?.rollerMm),
    seesRollerWear: known?.seesRollerWear ?? false,
    standing: known?.standing ?? 'in-use',
    connection: history?.connection ?? '',
    reason: '',
  }
}

/** What is typed as the server takes it. A number that is none is sent as such, so that its field says so. */
function bodyOf(fields: Fields) {
  const numberOr = (typed: string, otherwise: number | null): number | null =>
    typed.trim() === '' ? otherwise : (typedNumber(typed) ?? NaN)
  const isLength = entryForm(fields.kind) === 'length'
  const marks =
    fields.marks.trim() === ''
      ? null
      : fields.marks
          .trim()
          .split(/[\s;/·]+/)
          .map((one) => typedNumber(one) ?? NaN)
  return {
    uMm: isLength ? numberOr(fields.u, null) : null,
    u: isLength ? null : numberOr(fields.u, null),
    bias: numberOr(fields.bias, 0) ?? 0,
    biasU: numberOr(fields.biasU, 0) ?? 0,
    marks: entryForm(fields.kind) === 'marks' || fields.kind === 'swing-arm' ? marks : null,
    changeMark: numberOr(fields.changeMark, null),
    material: fields.material,
    rollerMm: fields.kind === 'caliper' ? numberOr(fields.rollerMm, null) : null,
    seesRollerWear: fields.seesRollerWear,
  }
}

/** The path a problem is named by, as the field of this form it concerns. */
const fieldAt = (path: string): keyof Fields =>
  path.startsWith('marks') ? 'marks' : path === 'uMm' ? 'u' : (path as keyof Fields)

/** A new instrument, or a new version of the record of one. */
export function RecordForm({ history, onClose }: { history: InstrumentHistory | null; onClose: () => void }) {
  const { t } = useTranslation()
  const client = useQueryClient()
  const navigate = useNavigate()
  const { tell } = useSurroundings()
  const [general, setGeneral] = useState<string | null>(null)
  const form = useForm<Fields>({ defaultValues: defaultsOf(history) })
  const { errors, isSubmitting } = form.formState
  const kind = useWatch({ control: form.control, name: 'kind' })
  const kindForm = entryForm(kind)
  const save = form.handleSubmit(async (fields) => {
    setGeneral(null)
    const id = v7()
    const connection = fields.connection.trim()
    try {
      if (history)
        await ask(endpoints.reviseInstrument, {
          params: { id: history.instrument.id },
          body: {
            id,
            fromVersion: history.instrument.recordVersion,
            ...bodyOf(fields),
            standing: fields.standing,
            reads:
              fields.standing === 'in-use' && history.instrument.reads === 'late' ? null : history.instrument.reads,
            connection: connection === '' ? null : connection,
            reason: fields.reason.trim(),
          },
          key: id,
        })
      else
        await ask(endpoints.addInstrument, {
          body: {
            id,
            kind: fields.kind,
            name: fields.name.trim(),
            ...bodyOf(fields),
            ...(connection === '' ? {} : { connection }),
          },
          key: id,
        })
      await client.invalidateQueries({ queryKey: keys.instruments })
      tell(t('bike.saved'))
      onClose()
      if (!history) void navigate(`/gauges/${id}`)
    } catch (error) {
      const problem = error instanceof ProblemError ? error.problem : null
      for (const { path, detail } of problem?.fields ?? []) form.setError(fieldAt(path), { message: detail })
      if (!problem?.fields) setGeneral(problem?.detail ?? t('app.notSaved'))
    }
  })
  const field = (name: keyof Fields, label: string, more: { hint?: string; unit?: string; width?: number } = {}) => (
    <TextField
      {...form.register(name)}
      label={label}
      error={errors[name] !== undefined}
      helperText={errors[name]?.message ?? more.hint ?? ' '}
      slotProps={{
        inputLabel: { shrink: true },
        htmlInput: { autoComplete: 'off', maxLength: 200 },
        ...(more.unit === undefined ? {} : { input: { endAdornment: more.unit } }),
      }}
      sx={{ flex: more.width ?? 1 }}
    />
  )
  return (
    <SheetDialog
      open
      onClose={onClose}
      title={history ? t('gauges.changeTitle', { name: history.instrument.name }) : t('gauges.add')}
      maxWidth="md"
      fullWidth
    >
      <form noValidate onSubmit={(event) => void save(event)}>
        <Stack sx={{ gap: 0.75, pt: 1 }}>
          {!history && (
            <Stack direction="row" sx={{ gap: 1.5 }}>
              <Controller
                control={form.control}
                name="kind"
                render={({ field: kindField }) => (
                  <TextField select label={t('gauges.kind')} {...kindField} sx={{ flex: 1 }} helperText=" ">
                    {INSTRUMENT_KINDS.map((one) => (
                      <MenuItem key={one} value={one} sx={{ minHeight: 48 }}>
                        {t(`instrument.${one}`)}
                      </MenuItem>
                    ))}
                  </TextField>
                )}
              />
              {field('name', t('gauges.name'), { width: 2, hint: t('gauges.nameHint') })}
            </Stack>
          )}
          {kind !== 'by-hand' && (
            <Stack direction="row" sx={{ gap: 1.5 }}>
              {field('u', t('gauges.u'), { unit: kindForm === 'length' ? 'mm' : '%', hint: t('gauges.uHint') })}
              {field('bias', t('gauges.bias'), { unit: '%', hint: t('gauges.biasHint') })}
              {field('biasU', t('gauges.biasU'), { unit: '%' })}
            </Stack>
          )}
          {(kindForm === 'marks' || kind === 'swing-arm') && (
            <Stack direction="row" sx={{ gap: 1.5 }}>
              {field('marks', t('gauges.marks'), { hint: t('gauges.marksHint'), unit: '%' })}
              {field('changeMark', t('gauges.changeMark'), { hint: t('gauges.changeMarkHint'), unit: '%' })}
            </Stack>
          )}
          {kindForm === 'length' && (
            <Stack direction="row" sx={{ gap: 1.5 }}>
              <Controller
                control={form.control}
                name="material"
                render={({ field: materialField }) => (
                  <TextField select label={t('gauges.material')} {...materialField} sx={{ flex: 1 }} helperText=" ">
                    {RULE_MATERIALS.map((one) => (
                      <MenuItem key={one} value={one} sx={{ minHeight: 48 }}>
                        {t(`material.${one}`)}
                      </MenuItem>
                    ))}
                  </TextField>
                )}
              />
              {kind === 'caliper' && field('rollerMm', t('gauges.roller'), { unit: 'mm' })}
            </Stack>
          )}
          <Stack direction="row" sx={{ gap: 3 }}>
            <Controller
              control={form.control}
              name="seesRollerWear"
              render={({ field: { value, onChange, ...rest } }) => (
                <FormControlLabel
                  control={<Checkbox checked={value} onChange={(_, checked) => onChange(checked)} {...rest} />}
                  label={t('gauges.rollerWear')}
                />
              )}
            />
            {history && (
              <Controller
                control={form.control}
                name="standing"
                render={({ field: { value, onChange } }) => (
                  <FormControlLabel
                    control={
                      <Checkbox
                        checked={value === 'out-of-use'}
                        onChange={(_, checked) => onChange(checked ? 'out-of-use' : 'in-use')}
                      />
                    }
                    label={t('gauges.outOfUse')}
                  />
                )}
              />
            )}
          </Stack>
          {kind === 'digital' && field('connection', t('gauges.connection'), { hint: t('gauges.connectionHint') })}
          {history && field('reason', t('rules.reason'))}
          {general !== null && (
            <Alert severity="error" icon={false}>
              {general}
            </Alert>
          )}
          <Button type="submit" variant="contained" disabled={isSubmitting} sx={{ minHeight: 56 }}>
            {t('app.save')}
          </Button>
        </Stack>
      </form>
    </SheetDialog>
  )
}
