import {
  Alert,
  Box,
  Button,
  MenuItem,
  Radio,
  RadioGroup,
  FormControlLabel,
  Stack,
  TextField,
  Typography,
} from '@mui/material'
import { assumptionsWith, checkInstrument, entryForm } from '@pelrin/core'
import { useMemo, useState } from 'react'
import { useTranslation } from 'react-i18next'
import { v7 } from 'uuid'
import { endpoints, type InstrumentHistory, type ReviseInstrument } from '@pelrin/contract'
import { ask } from '../../api/client.ts'
import { useWrite } from '../../api/useWrite.ts'
import { keys } from '../../api/queries.ts'
import { useSurroundings } from '../../app/surroundings.ts'
import { number } from '../../messages/format.ts'
import { typedNumber } from '../../messages/typedNumber.ts'
import { SheetDialog } from '../../pieces/SheetDialog.tsx'
import { Why } from '../../pieces/Why.tsx'
import { ink } from '../../theme/theme.ts'
import { recordOf } from './recordOf.ts'
import { problemText } from '../../messages/said.ts'

interface Line {
  readonly reference: string
  readonly typed: string
  readonly pitches: string
}
const EMPTY: Line = { reference: '', typed: '', pitches: '' }
const HOW = ['strip', 'better-instrument', 'known-chain'] as const
type Outcome = 'correct' | 'out-of-use' | 'note'

/** A check against known places: what was there, what the instrument showed, and what that says of it. */
export function CheckSheet({ history, onClose }: { history: InstrumentHistory; onClose: () => void }) {
  const { t } = useTranslation()
  const { tell } = useSurroundings()
  const { instrument } = history
  const isLength = entryForm(instrument.kind) === 'length'
  const [how, setHow] = useState<(typeof HOW)[number]>('strip')
  const [referenceU, setReferenceU] = useState('0.01')
  const [lines, setLines] = useState<readonly Line[]>([EMPTY, EMPTY, EMPTY])
  const [outcome, setOutcome] = useState<Outcome>('correct')
  const [reason, setReason] = useState('')
  const {
    wrong,
    setWrong,
    busy: saving,
    write,
  } = useWrite({ access: endpoints.reviseInstrument.access, stale: [keys.instruments] })
  const used = lines.filter(({ reference, typed }) => reference.trim() !== '' || typed.trim() !== '')
  const pairs = useMemo(
    () =>
      used.map(({ reference, typed, pitches }) => ({
        reference: typedNumber(reference) ?? NaN,
        typed: typed.trim(),
        ...(isLength ? { pitches: typedNumber(pitches) ?? NaN } : {}),
      })),
    [used, isLength],
  )
  const u = typedNumber(referenceU)
  const result = checkInstrument({
    record: instrument,
    pairs,
    referenceU: u ?? 0,
    assumed: assumptionsWith(history.assumptions),
  })
  const found = result.ok && u !== undefined && u >= 0 ? result.outcome : null
  const setLine = (i: number, part: Partial<Line>): void => {
    setWrong(null)
    setLines((before) => {
      const next = before.map((line, j) => (i === j ? { ...line, ...part } : line))
      return next.at(-1)?.reference === '' && next.at(-1)?.typed === '' ? next : [...next, EMPTY]
    })
  }
  const save = async (): Promise<void> => {
    if (!found || u === undefined || saving) return
    const corrected = outcome === 'correct'
    const body: ReviseInstrument = {
      id: v7(),
      fromVersion: instrument.recordVersion,
      ...recordOf(instrument),
      ...(corrected ? { bias: round(found.bias), biasU: round(found.biasU) } : {}),
      standing: outcome === 'out-of-use' ? 'out-of-use' : 'in-use',
      // Once its bias is subtracted it reads true.
      reads: corrected ? 'true' : found.reads,
      check: { how, pairs, referenceU: u },
      reason: reason.trim() === '' ? t(`gauges.outcome.${outcome}`) : reason.trim(),
    }
    const revise = () => ask(endpoints.reviseInstrument, { params: { id: instrument.id }, body, key: body.id })
    if (!(await write(() => revise().then(() => true)))) return
    tell(t('gauges.checkSaved'))
    onClose()
  }
  return (
    <SheetDialog
      open
      onClose={onClose}
      title={t('gauges.checkTitle', { name: instrument.name })}
      maxWidth="md"
      fullWidth
    >
      <Stack sx={{ gap: 1.75 }}>
        <Stack direction="row" sx={{ gap: 1.5, mt: 1 }}>
          <TextField
            select
            label={t('gauges.against')}
            value={how}
            onChange={(event) => setHow(event.target.value as typeof how)}
            sx={{ flex: 2 }}
          >
            {HOW.map((one) => (
              <MenuItem key={one} value={one}>
                {t(`gauges.how.${one}`)}
              </MenuItem>
            ))}
          </TextField>
          <TextField
            label={t('gauges.referenceU')}
            value={referenceU}
            onChange={(event) => setReferenceU(event.target.value)}
            error={u === undefined || u < 0}
            helperText={u === undefined || u < 0 ? t('problems.number-malformed') : undefined}
            slotProps={{
              htmlInput: { inputMode: 'decimal' },
              input: { endAdornment: '%' },
            }}
            sx={{ flex: 1 }}
          />
        </Stack>
        <Lines
          lines={lines}
          instrument={instrument}
          wrongAt={(line) =>
            !result.ok && used.includes(line) && result.at === used.indexOf(line) ? result.problem : null
          }
          onLine={setLine}
        />
        <Box aria-live="polite" data-testid="check-result" sx={{ minHeight: 34 }}>
          {found ? (
            <Typography
              sx={{
                fontSize: 'size.say',
                fontWeight: 700,
                color: found.reads === 'true' ? ink('steel') : ink('brass'),
              }}
            >
              {t(`gauges.reads.${found.reads}`, { bias: number(Math.abs(found.bias), 3), u: number(found.biasU, 3) })}{' '}
              <Why explanations={[found.explanation, found.uExplanation]} />
            </Typography>
          ) : (
            <Typography color="textSecondary">
              {used.length === 0 || (!result.ok && result.at !== null)
                ? t('gauges.checkAsk')
                : !result.ok && t(`problems.${result.problem}`)}
            </Typography>
          )}
        </Box>
        <RadioGroup
          value={outcome}
          onChange={(event) => setOutcome(event.target.value as Outcome)}
          aria-label={t('gauges.then')}
        >
          {(['correct', 'out-of-use', 'note'] as const).map((one) => (
            <FormControlLabel key={one} value={one} control={<Radio />} label={t(`gauges.outcome.${one}`)} />
          ))}
        </RadioGroup>
        <TextField
          label={t('gauges.remark')}
          value={reason}
          onChange={(event) => setReason(event.target.value)}
          slotProps={{ htmlInput: { maxLength: 200 } }}
        />
        {wrong !== null && (
          <Alert severity="error" icon={false}>
            {wrong.sentence}
          </Alert>
        )}
        <Button variant="contained" disabled={!found || saving} onClick={() => void save()} sx={{ minHeight: 56 }}>
          {t('gauges.saveCheck')}
        </Button>
      </Stack>
    </SheetDialog>
  )
}

/** Known places and what the instrument shows at each. */
function Lines({
  lines,
  instrument,
  wrongAt,
  onLine,
}: {
  lines: readonly Line[]
  instrument: InstrumentHistory['instrument']
  wrongAt: (line: Line) => string | null
  onLine: (i: number, part: Partial<Line>) => void
}) {
  const { t } = useTranslation()
  const isLength = entryForm(instrument.kind) === 'length'
  return (
    <Box sx={{ display: 'grid', gridTemplateColumns: isLength ? '1fr 1.3fr 0.7fr' : '1fr 1.3fr', gap: 1.25 }}>
      {lines.map((line, i) => {
        const problem = wrongAt(line)
        return (
          <Box key={i} sx={{ display: 'contents' }}>
            <TextField
              size="small"
              label={t('gauges.reference', { n: i + 1 })}
              value={line.reference}
              autoFocus={i === 0}
              onChange={(event) => onLine(i, { reference: event.target.value })}
              slotProps={{
                htmlInput: { inputMode: 'decimal' },
                input: { endAdornment: '%' },
              }}
            />
            <TextField
              size="small"
              label={t('gauges.shown', { n: i + 1 })}
              value={line.typed}
              placeholder={i === 0 ? t(`gauges.shownHint.${entryForm(instrument.kind)}`) : ''}
              error={problem !== null && line.typed !== ''}
              helperText={
                problem !== null && line.typed !== ''
                  ? problemText(t, problem, {
                      count: instrument.marks?.length,
                      highest: 3,
                      pitches: line.pitches,
                      elongation: '',
                    })
                  : undefined
              }
              onChange={(event) => onLine(i, { typed: event.target.value })}
              slotProps={{ htmlInput: { autoCapitalize: 'none' } }}
            />
            {isLength && (
              <TextField
                size="small"
                label={t('measure.countLabel')}
                value={line.pitches}
                onChange={(event) => onLine(i, { pitches: event.target.value.replace(/\D/g, '') })}
                slotProps={{ htmlInput: { inputMode: 'numeric' } }}
              />
            )}
          </Box>
        )
      })}
    </Box>
  )
}

/** A record is written to a thousandth of a per cent: finer than any check can tell. */
const round = (value: number): number => Math.round(value * 1000) / 1000
