import { Box, Stack, Typography } from '@mui/material'
import { entryForm } from '@pelrin/core'
import { useWatch } from 'react-hook-form'
import { useTranslation } from 'react-i18next'
import { useNavigate } from 'react-router'
import { endpoints, type Instrument } from '@pelrin/contract'
import { ask } from '../../api/client.ts'
import { useSurroundings } from '../../app/surroundings.ts'
import { Flags } from '../../forms/Flags.tsx'
import { FormDialog } from '../../forms/FormDialog.tsx'
import { Line } from '../../forms/Line.tsx'
import { useWriteForm } from '../../forms/useWriteForm.ts'
import { typedNumber } from '../../messages/typedNumber.ts'
import { countOf, letterOf, studyIn, type TypedStudy } from './typedStudy.ts'

/** Plans a study: who measures, which spots, how often. */
export function PlanStudy({ instrument, onClose }: { instrument: Instrument; onClose: () => void }) {
  const { t } = useTranslation()
  const navigate = useNavigate()
  const { session } = useSurroundings()
  const kind = entryForm(instrument.kind)
  const form = useWriteForm({
    access: endpoints.planStudy.access,
    schema: endpoints.planStudy.body,
    start: {
      title: '',
      peopleIds: [session.person.id],
      spots: '5',
      repeats: '3',
      pitches: '24',
      references: '',
      referenceU: '0.01',
    },
    read: (typed: TypedStudy, id) => studyIn(typed, id, { kind, untitled: t('study.untitled') }),
    fieldOf: (path) => (path.endsWith('.reference') ? 'references' : path),
    send: async (body, { id }) => {
      await ask(endpoints.planStudy, { params: { id: instrument.id }, body, key: id })
      return id
    },
    done: (id) => void navigate(`/studies/${id}`),
  })
  const [spots, repeats, people] = useWatch({
    control: form.fields.control,
    name: ['spots', 'repeats', 'peopleIds'],
  })
  const count = countOf(spots)
  return (
    <FormDialog
      form={form}
      title={t('study.planTitle', { name: instrument.name })}
      go={t('study.begin', { count: people.length * count * (typedNumber(repeats) ?? 0) })}
      onClose={onClose}
    >
      <Line name="title" label={t('study.title')} autoFocus />
      <Flags
        name="peopleIds"
        label={t('study.who')}
        options={session.people.filter(({ role }) => role !== 'read-only').map(({ id, name }) => [id, name])}
      />
      <Stack direction="row" sx={{ gap: 1.5, '& > *': { flex: 1 } }}>
        <Line name="spots" label={t('study.spots')} of="whole" />
        <Line name="repeats" label={t('study.repeats')} of="whole" />
        {kind === 'length' && <Line name="pitches" label={t('measure.countLabel')} of="whole" />}
      </Stack>
      <Stack direction="row" sx={{ gap: 1.5 }}>
        <Box sx={{ flex: 2.4, display: 'grid' }}>
          <Line
            name="references"
            label={t('study.references', { letters: `${letterOf(0)} … ${letterOf(Math.max(0, count - 1))}` })}
            hint={kind === 'marks' ? t('study.referencesNeeded') : t('study.referencesHint')}
            placeholder="0.20 0.35 0.50 0.65 0.80"
            unit="%"
          />
        </Box>
        <Line name="referenceU" label={t('gauges.referenceU')} of="number" unit="%" sx={{ flex: 1 }} />
      </Stack>
      <Typography variant="body2" color="textSecondary">
        {t('study.advice')}
      </Typography>
    </FormDialog>
  )
}
