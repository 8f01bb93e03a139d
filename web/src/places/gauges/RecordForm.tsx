import { Stack } from '@mui/material'
import { entryForm, INSTRUMENT_KINDS, RULE_MATERIALS, KINDS, measuresNothing } from '@pelrin/core'
import { useWatch } from 'react-hook-form'
import { useTranslation } from 'react-i18next'
import { useNavigate } from 'react-router'
import { endpoints, type InstrumentHistory } from '@pelrin/contract'
import { ask } from '../../api/client.ts'
import { keys } from '../../api/queries.ts'
import { useSurroundings } from '../../app/surroundings.ts'
import { Choice } from '../../forms/Choice.tsx'
import { Flag } from '../../forms/Flag.tsx'
import { FormDialog } from '../../forms/FormDialog.tsx'
import { Line } from '../../forms/Line.tsx'
import { textIn } from '../../forms/typed.ts'
import { useWriteForm, type Sending } from '../../forms/useWriteForm.ts'
import { hasMarks, recordIn, typedRecord, type TypedRecord } from './typedRecord.ts'

const row = { gap: 1.5, '& > *': { flex: 1 } }

/** A new version of the record of an instrument. */
const revision = (typed: TypedRecord, id: string, { instrument }: InstrumentHistory) => ({
  id,
  fromVersion: instrument.recordVersion,
  ...recordIn(typed),
  standing: typed.outOfUse ? ('out-of-use' as const) : ('in-use' as const),
  // Back in use, it is no longer known to read late.
  reads: !typed.outOfUse && instrument.reads === 'late' ? null : instrument.reads,
  connection: textIn(typed.connection),
  reason: typed.reason.trim(),
})

const addition = (typed: TypedRecord, id: string) => ({
  id,
  kind: typed.kind,
  name: typed.name.trim(),
  ...recordIn(typed),
  ...(textIn(typed.connection) === null ? {} : { connection: typed.connection.trim() }),
})

/** A new instrument, or a new version of the record of one. */
export function RecordForm({ history, onClose }: { history: InstrumentHistory | null; onClose: () => void }) {
  const { t } = useTranslation()
  const navigate = useNavigate()
  const { tell } = useSurroundings()
  const form = useWriteForm({
    access: endpoints.addInstrument.access,
    stale: [keys.instruments],
    schema: history ? endpoints.reviseInstrument.body : endpoints.addInstrument.body,
    start: typedRecord(history),
    read: (typed: TypedRecord, id): unknown => (history ? revision(typed, id, history) : addition(typed, id)),
    fieldOf: (path) => (path === 'uMm' ? 'u' : path),
    send: async (_, { id }: Sending, typed) => {
      if (history) {
        const params = { id: history.instrument.id }
        await ask(endpoints.reviseInstrument, { params, body: revision(typed, id, history), key: id })
      } else await ask(endpoints.addInstrument, { body: addition(typed, id), key: id })
      return id
    },
    done: (id) => {
      tell(t('bike.saved'))
      onClose()
      if (!history) void navigate(`/gauges/${id}`)
    },
  })
  const kind = useWatch({ control: form.fields.control, name: 'kind' })
  const kindForm = entryForm(kind)
  return (
    <FormDialog
      form={form}
      title={history ? t('gauges.changeTitle', { name: history.instrument.name }) : t('gauges.add')}
      go={t('app.save')}
      wide
      onClose={onClose}
    >
      {!history && (
        <Stack direction="row" sx={row}>
          <Choice
            name="kind"
            label={t('gauges.kind')}
            options={INSTRUMENT_KINDS.map((one) => [one, t(`instrument.${one}`)])}
          />
          <Line name="name" label={t('gauges.name')} hint={t('gauges.nameHint')} autoFocus />
        </Stack>
      )}
      {!measuresNothing(kind) && (
        <Stack direction="row" sx={row}>
          <Line
            name="u"
            label={t('gauges.u')}
            hint={t('gauges.uHint')}
            of="number"
            unit={kindForm === 'length' ? 'mm' : '%'}
          />
          <Line name="bias" label={t('gauges.bias')} hint={t('gauges.biasHint')} of="number" unit="%" />
          <Line name="biasU" label={t('gauges.biasU')} of="number" unit="%" />
        </Stack>
      )}
      {hasMarks(kind) && (
        <Stack direction="row" sx={row}>
          <Line name="marks" label={t('gauges.marks')} hint={t('gauges.marksHint')} unit="%" />
          <Line
            name="changeMark"
            label={t('gauges.changeMark')}
            hint={t('gauges.changeMarkHint')}
            of="number"
            unit="%"
          />
        </Stack>
      )}
      {kindForm === 'length' && (
        <Stack direction="row" sx={row}>
          <Choice
            name="material"
            label={t('gauges.material')}
            options={RULE_MATERIALS.map((one) => [one, t(`material.${one}`)])}
          />
          {KINDS[kind].jaws === true && <Line name="rollerMm" label={t('gauges.roller')} of="number" unit="mm" />}
        </Stack>
      )}
      <Stack direction="row" sx={{ columnGap: 3, flexWrap: 'wrap' }}>
        <Flag name="seesRollerWear" label={t('gauges.rollerWear')} />
        {history && <Flag name="outOfUse" label={t('gauges.outOfUse')} />}
      </Stack>
      {KINDS[kind].connects === true && (
        <Line name="connection" label={t('gauges.connection')} hint={t('gauges.connectionHint')} />
      )}
      {history && <Line name="reason" label={t('rules.reason')} longest={200} />}
    </FormDialog>
  )
}
