import { Alert, Box, Button, Checkbox, FormControlLabel, Stack, TextField, Typography } from '@mui/material'
import { entryForm } from '@pelrin/core'
import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import { useNavigate } from 'react-router'
import { v7 } from 'uuid'
import { endpoints, type Instrument } from '@pelrin/contract'
import { ask, ProblemError } from '../../api/client.ts'
import { useSurroundings } from '../../app/surroundings.ts'
import { typedNumber } from '../../messages/typedNumber.ts'
import { SheetDialog } from '../../pieces/SheetDialog.tsx'

/** Spots are lettered: a letter is chalked beside each on the chain or strip. */
const letter = (i: number): string => String.fromCharCode(65 + i)

/** Plans a study: who measures, which spots, how often. */
export function PlanStudy({ instrument, onClose }: { instrument: Instrument; onClose: () => void }) {
  const { t } = useTranslation()
  const navigate = useNavigate()
  const { session } = useSurroundings()
  const form = entryForm(instrument.kind)
  const [title, setTitle] = useState('')
  const [people, setPeople] = useState<readonly string[]>([session.person.id])
  const [spots, setSpots] = useState('5')
  const [repeats, setRepeats] = useState('3')
  const [pitches, setPitches] = useState('24')
  const [references, setReferences] = useState('')
  const [referenceU, setReferenceU] = useState('0.01')
  const [wrong, setWrong] = useState<Readonly<Record<string, string>>>({})
  // One study, however often it is begun.
  const [id] = useState(() => v7())
  const count = Math.min(15, Math.max(0, Math.floor(typedNumber(spots) ?? 0)))
  const truths = references.split(/[\s;]+/).filter((one) => one !== '')
  const plan = async (): Promise<void> => {
    if (truths.some((one) => typedNumber(one) === undefined)) {
      setWrong({ references: t('problems.number-malformed') })
      return
    }
    try {
      await ask(endpoints.planStudy, {
        params: { id: instrument.id },
        body: {
          id,
          title: title.trim() === '' ? t('study.untitled') : title.trim(),
          peopleIds: [...people],
          spots: Array.from({ length: count }, (_, i) => {
            const reference = typedNumber(truths[i] ?? '')
            return { label: letter(i), ...(reference === undefined ? {} : { reference }) }
          }),
          repeats: typedNumber(repeats) ?? NaN,
          ...(form === 'length' ? { pitches: typedNumber(pitches) ?? NaN } : {}),
          referenceU: typedNumber(referenceU) ?? NaN,
        },
        key: id,
      })
      void navigate(`/studies/${id}`)
    } catch (error) {
      const problem = error instanceof ProblemError ? error.problem : null
      setWrong(
        Object.fromEntries(
          (problem?.fields ?? [{ path: '', detail: problem?.detail ?? t('app.notSaved') }]).map(({ path, detail }) => [
            path.split('.')[0] ?? '',
            detail,
          ]),
        ),
      )
    }
  }
  const field = (label: string, value: string, set: (typed: string) => void, path: string, unit?: string) => (
    <TextField
      label={label}
      value={value}
      onChange={(event) => {
        setWrong({})
        set(event.target.value)
      }}
      error={wrong[path] !== undefined}
      helperText={wrong[path]}
      slotProps={{ inputLabel: { shrink: true }, ...(unit === undefined ? {} : { input: { endAdornment: unit } }) }}
      sx={{ flex: 1 }}
    />
  )
  return (
    <SheetDialog open onClose={onClose} title={t('study.planTitle', { name: instrument.name })} maxWidth="sm" fullWidth>
      <Stack
        component="form"
        noValidate
        onSubmit={(event) => {
          event.preventDefault()
          void plan()
        }}
        sx={{ gap: 1.75, pt: 1 }}
      >
        {field(t('study.title'), title, setTitle, 'title')}
        <Box role="group" aria-label={t('study.who')}>
          <Typography variant="body2" color="textSecondary">
            {t('study.who')}
          </Typography>
          <Stack direction="row" sx={{ flexWrap: 'wrap', columnGap: 2 }}>
            {session.people
              .filter(({ role }) => role !== 'read-only')
              .map((person) => (
                <FormControlLabel
                  key={person.id}
                  control={
                    <Checkbox
                      checked={people.includes(person.id)}
                      onChange={(_, checked) => {
                        setWrong({})
                        setPeople((before) =>
                          checked ? [...before, person.id] : before.filter((one) => one !== person.id),
                        )
                      }}
                    />
                  }
                  label={person.name}
                />
              ))}
          </Stack>
        </Box>
        <Stack direction="row" sx={{ gap: 1.5 }}>
          {field(t('study.spots'), spots, setSpots, 'spots')}
          {field(t('study.repeats'), repeats, setRepeats, 'repeats')}
          {form === 'length' && field(t('measure.countLabel'), pitches, setPitches, 'pitches')}
        </Stack>
        <Stack direction="row" sx={{ gap: 1.5 }}>
          <TextField
            label={t('study.references', { letters: `${letter(0)} … ${letter(Math.max(0, count - 1))}` })}
            value={references}
            onChange={(event) => {
              setWrong({})
              setReferences(event.target.value)
            }}
            placeholder="0.20 0.35 0.50 0.65 0.80"
            error={wrong['references'] !== undefined}
            helperText={
              wrong['references'] ?? (form === 'marks' ? t('study.referencesNeeded') : t('study.referencesHint'))
            }
            slotProps={{ inputLabel: { shrink: true }, input: { endAdornment: '%' } }}
            sx={{ flex: 2.4 }}
          />
          {field(t('gauges.referenceU'), referenceU, setReferenceU, 'referenceU', '%')}
        </Stack>
        {(wrong['peopleIds'] ?? wrong['']) !== undefined && (
          <Alert severity="error" icon={false}>
            {wrong['peopleIds'] ?? wrong['']}
          </Alert>
        )}
        <Typography variant="body2" color="textSecondary">
          {t('study.advice')}
        </Typography>
        <Button type="submit" variant="contained" sx={{ minHeight: 56 }}>
          {t('study.begin', { count: people.length * count * (typedNumber(repeats) ?? 0) })}
        </Button>
      </Stack>
    </SheetDialog>
  )
}
