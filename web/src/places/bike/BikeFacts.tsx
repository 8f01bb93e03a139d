import {
  Box,
  Button,
  Checkbox,
  Dialog,
  DialogActions,
  DialogContent,
  DialogTitle,
  FormControlLabel,
  Stack,
  TextField,
  Typography,
} from '@mui/material'
import { valibotResolver } from '@hookform/resolvers/valibot'
import { useQueryClient } from '@tanstack/react-query'
import { useState, type ReactNode } from 'react'
import { useForm, type FieldPath } from 'react-hook-form'
import { useTranslation } from 'react-i18next'
import { ChangeBike, endpoints, type BikeRecord } from '@pelrin/contract'
import { ask, ProblemError } from '../../api/client.ts'
import { keys } from '../../api/queries.ts'
import { useSurroundings } from '../../app/surroundings.ts'
import { day, distance, today } from '../../messages/format.ts'
import { Why } from '../../pieces/Why.tsx'
import { RhythmChoice } from './RhythmChoice.tsx'
import { RuleChoice } from './RuleChoice.tsx'

/** What the bike is, and a way to change what it is called. */
export function BikeFacts({ record }: { record: BikeRecord }) {
  const { t } = useTranslation()
  const [editing, setEditing] = useState(false)
  const { summary, chain, lastOdometer } = record
  const unit = lastOdometer?.unit ?? 'km'
  const facts: [string, ReactNode][] = [
    [
      t('bike.customer'),
      record.customer.phone ? `${record.customer.name}, ${record.customer.phone}` : record.customer.name,
    ],
    [
      t('bike.drive'),
      summary.drive.fronts.length > 0
        ? t('bike.teeth', { fronts: summary.drive.fronts.join('-'), sprockets: summary.drive.sprockets.join(' ') })
        : '',
    ],
    [t('bike.frame'), [record.maker, summary.frameMark].filter((part) => part !== null).join(' ')],
    [
      t('stand.chain'),
      chain
        ? [
            chain.name,
            chain.pitches === null ? null : t('stand.pitches', { count: chain.pitches }),
            t(`care.${chain.care}`),
            chain.start === 'fitted' ? t('stand.fitted', { date: day(chain.fittedAt) }) : t('stand.cameWith'),
          ]
            .filter((part) => part !== null)
            .join(', ')
        : t('app.unknown'),
    ],
    [
      t('rack.ran'),
      summary.chainKm === null ? (
        t('app.unknown')
      ) : (
        <>
          {distance(summary.chainKm, unit)}{' '}
          {record.distanceExplanation && <Why explanations={[record.distanceExplanation]} label={t('rack.ran')} />}
        </>
      ),
    ],
    [t('rules.ruleOfBike'), <RuleChoice key="rule" record={record} />],
    [t('rules.rhythm'), <RhythmChoice key="rhythm" record={record} />],
    [t('bike.notes'), record.notes === '' ? '–' : record.notes],
  ]
  return (
    <Box component="section" aria-label={t('bike.record')}>
      <Stack direction="row" sx={{ justifyContent: 'space-between', alignItems: 'center' }}>
        <Typography variant="h3" component="h2" color="textSecondary">
          {t('bike.record')}
        </Typography>
        <Button onClick={() => setEditing(true)}>{t('bike.edit')}</Button>
      </Stack>
      <Box
        component="dl"
        sx={{
          m: 0,
          display: 'grid',
          gridTemplateColumns: '110px 1fr',
          '& > *': { py: 0.6, borderTop: 1, borderColor: 'divider', m: 0 },
        }}
      >
        {facts.map(([name, value]) => (
          <Box key={name} sx={{ display: 'contents' }}>
            <Typography
              component="dt"
              variant="body2"
              color="textSecondary"
              sx={{ borderTop: 1, borderColor: 'divider', py: 0.6 }}
            >
              {name}
            </Typography>
            <Typography
              component="dd"
              variant="body2"
              sx={{ borderTop: 1, borderColor: 'divider', py: 0.6, m: 0, whiteSpace: 'pre-wrap' }}
            >
              {value}
            </Typography>
          </Box>
        ))}
      </Box>
      {editing && <EditDialog record={record} onClose={() => setEditing(false)} />}
    </Box>
  )
}

interface Fields {
  label: string
  tag: string
  frameMark: string
  notes: string
}
const FIELDS = ['label', 'tag', 'frameMark', 'notes'] as const satisfies readonly FieldPath<Fields>[]

function EditDialog({ record, onClose }: { record: BikeRecord; onClose: () => void }) {
  const { t } = useTranslation()
  const client = useQueryClient()
  const { tell } = useSurroundings()
  const [version, setVersion] = useState(record.version)
  /** What somebody else wrote meanwhile, beside ours. */
  const [theirs, setTheirs] = useState<Fields | null>(null)
  const form = useForm<Fields>({
    resolver: valibotResolver(ChangeBike) as never,
    defaultValues: {
      label: record.summary.label,
      tag: record.summary.tag,
      frameMark: record.summary.frameMark ?? '',
      notes: record.notes,
    },
  })
  const [gone, setGone] = useState(record.goneOn !== null)
  const { errors, isSubmitting } = form.formState
  const save = form.handleSubmit(async ({ frameMark, ...rest }) => {
    const body = {
      ...rest,
      frameMark: frameMark === '' ? null : frameMark,
      goneOn: gone ? (record.goneOn ?? today()) : null,
    }
    try {
      await ask(endpoints.changeBike, { params: { id: record.summary.id }, version, body })
      await client.invalidateQueries({ queryKey: keys.bike(record.summary.id) })
      void client.invalidateQueries({ queryKey: keys.lineUp })
      void client.invalidateQueries({ queryKey: keys.rack })
      tell(t('bike.saved'))
      onClose()
    } catch (error) {
      const problem = error instanceof ProblemError ? error.problem : null
      if (problem?.status === 412) {
        const current = problem.current as Fields & { version: number }
        setVersion(current.version)
        setTheirs(current)
        return
      }
      for (const field of problem?.fields ?? []) form.setError(field.path as FieldPath<Fields>, { message: field.code })
      if (!problem?.fields) form.setError('label', { message: problem?.code ?? 'database-away' })
    }
  })
  const names: Record<keyof Fields, string> = {
    label: t('bike.name'),
    tag: t('bike.tag'),
    frameMark: t('bike.frame'),
    notes: t('bike.notes'),
  }
  return (
    <Dialog open onClose={onClose} fullWidth maxWidth="sm" aria-labelledby="edit-title">
      <form onSubmit={(event) => void save(event)} noValidate>
        <DialogTitle id="edit-title">{t('bike.edit')}</DialogTitle>
        <DialogContent sx={{ display: 'grid', gap: 0.5 }}>
          {theirs && (
            <Typography role="alert" sx={{ mb: 1 }}>
              {t('bike.newer')}
            </Typography>
          )}
          {FIELDS.map((name, i) => {
            const message = errors[name]?.message
            const now = theirs?.[name]
            return (
              <TextField
                key={name}
                {...form.register(name)}
                autoFocus={i === 0}
                label={names[name]}
                multiline={name === 'notes'}
                minRows={name === 'notes' ? 3 : 1}
                error={!!message}
                helperText={
                  message
                    ? t(`problems.${message}`)
                    : now && now !== form.getValues(name)
                      ? t('bike.theirs', { value: now })
                      : ' '
                }
                sx={{ mt: i === 0 ? 1 : 0 }}
              />
            )
          })}
          <FormControlLabel
            control={<Checkbox checked={gone} onChange={(_, now) => setGone(now)} />}
            label={t('bike.gone')}
          />
        </DialogContent>
        <DialogActions>
          <Button onClick={onClose}>{t('app.cancel')}</Button>
          <Button type="submit" variant="contained" disabled={isSubmitting}>
            {t('app.save')}
          </Button>
        </DialogActions>
      </form>
    </Dialog>
  )
}
