import { Box, Checkbox, FormControlLabel, Typography } from '@mui/material'
import { INSTRUMENT_KINDS, type InstrumentKind } from '@pelrin/core'
import { useController } from 'react-hook-form'
import { useTranslation } from 'react-i18next'
import { v7 } from 'uuid'
import type { Instrument } from '@pelrin/contract'
import { endpoints } from '@pelrin/contract'
import { ask } from '../../api/client.ts'
import { keys } from '../../api/queries.ts'
import { FormDialog } from '../../forms/FormDialog.tsx'
import { useWriteForm } from '../../forms/useWriteForm.ts'
import { InstrumentGlyph } from '../../pieces/InstrumentGlyph.tsx'
import { recordIn, typedRecord } from '../gauges/typedRecord.ts'

/** Marks drop-in tools mostly have, %: put right under Gauges by what stands on the tool. */
const USUAL_MARKS = '0.5 0.75'

/** Which instruments hang on the wall: each chosen gets the record of its kind, to be put right once it is checked. */
export function OnTheWallDialog({ instruments, onClose }: { instruments: readonly Instrument[]; onClose: () => void }) {
  const { t } = useTranslation()
  const first = INSTRUMENT_KINDS.find((kind) => !instruments.some((one) => one.kind === kind))
  const there = new Set(instruments.map(({ kind }) => kind))
  const form = useWriteForm({
    access: endpoints.addInstrument.access,
    stale: [keys.instruments],
    start: { kinds: [...there] as InstrumentKind[] },
    schema: undefined,
    read: (typed) => typed,
    send: async (_, __, { kinds }) => {
      for (const kind of kinds.filter((one) => !there.has(one))) {
        const id = v7()
        const typed = { ...typedRecord(null), kind, marks: USUAL_MARKS }
        await ask(endpoints.addInstrument, {
          key: id,
          body: { id, kind, name: t(`instrument.${kind}`), ...recordIn(typed) },
        })
        // What came through is there, should the next be refused.
        there.add(kind)
      }
    },
    done: onClose,
  })
  const { field } = useController({ control: form.fields.control, name: 'kinds' })
  const toggle = (kind: InstrumentKind): void =>
    field.onChange(field.value.includes(kind) ? field.value.filter((one) => one !== kind) : [...field.value, kind])
  return (
    <FormDialog form={form} title={t('firstDay.step.wall')} go={t('firstDay.hang')} onClose={onClose}>
      <Typography color="textSecondary">{t('firstDay.wallNote')}</Typography>
      <Box
        role="group"
        aria-label={t('firstDay.step.wall')}
        sx={{ display: 'grid', gridTemplateColumns: { sm: '1fr 1fr' } }}
      >
        {INSTRUMENT_KINDS.map((kind) => (
          <FormControlLabel
            key={kind}
            disabled={there.has(kind)}
            control={
              <Checkbox autoFocus={kind === first} checked={field.value.includes(kind)} onChange={() => toggle(kind)} />
            }
            sx={{ minHeight: 48 }}
            label={
              <Box component="span" sx={{ display: 'flex', alignItems: 'center', gap: 1.25 }}>
                <InstrumentGlyph kind={kind} />
                {t(`instrument.${kind}`)}
              </Box>
            }
          />
        ))}
      </Box>
    </FormDialog>
  )
}
