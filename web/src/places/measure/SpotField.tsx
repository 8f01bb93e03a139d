import { Box, Button, Stack, TextField, Typography } from '@mui/material'
import { entryForm, formatLength, type Assumptions, type PitchCandidate, fromMark, hangsWholeChain } from '@pelrin/core'
import type { TFunction } from 'i18next'
import { useRef, useState, type RefObject } from 'react'
import { flushSync } from 'react-dom'
import { useTranslation } from 'react-i18next'
import type { Instrument } from '@pelrin/contract'
import { number, percent } from '../../messages/format.ts'
import { intervalText } from '../../pieces/intervalText.ts'
import { KeyButton } from '../../pieces/KeyButton.tsx'
import { KeyCap } from '../../pieces/KeyCap.tsx'
import { Why } from '../../pieces/Why.tsx'
import { ink } from '../../theme/theme.ts'
import type { DraftSpot } from './draft.ts'
import { countsOf, type SpotReading } from './evaluate.ts'
import { problemText } from '../../messages/said.ts'

/** The spot in hand: what the instrument shows, the counts it can be, and what it comes to. */
export function SpotField({
  place,
  spot,
  reading,
  instrument,
  chainPitches,
  assumed,
  error,
  inputRef,
  onChange,
  onEnter,
}: {
  /** Round the chain, from 0. */
  place: number
  spot: DraftSpot
  reading: SpotReading
  instrument: Instrument
  /** The count recorded for the chain, to be confirmed for a whole length; null when not known. */
  chainPitches: number | null
  assumed: Assumptions
  /** A problem the server named for this spot. */
  error: string | undefined
  inputRef: RefObject<HTMLInputElement | null>
  onChange: (spot: DraftSpot) => void
  /** Enter with nothing left to say of this spot: go on. */
  onEnter: (reading: SpotReading) => void
}) {
  const { t } = useTranslation()
  const choices = useRef<HTMLDivElement>(null)
  const countInput = useRef<HTMLInputElement>(null)
  /** Another count than the one taken is being said, of this text. */
  const [recounting, setRecounting] = useState<string | null>(null)
  const { kind } = instrument
  const whole = hangsWholeChain(kind)
  const pick = (pitches: number): void => {
    onChange({ ...spot, pitches })
    setRecounting(null)
    inputRef.current?.focus()
  }
  const wrong = error !== undefined ? problemText(t, error) : wrongOf(reading, t)
  const waitsForCount = reading.state === 'choose'
  const counted = reading.state === 'ready' && reading.span !== null && !whole ? reading.span : null
  const candidates =
    reading.state === 'choose'
      ? reading.candidates
      : counted && recounting === spot.typed
        ? countsOf(counted, assumed)
        : []
  const says = (
    <Box id="spot-says" aria-live="polite" sx={{ flex: 1, minWidth: 0, pt: 0.25 }}>
      {reading.state === 'ready' && wrong === null && (
        <Says
          reading={reading}
          onRecount={counted && countsOf(counted, assumed).length > 1 ? () => setRecounting(spot.typed) : undefined}
        />
      )}
      {wrong !== null && (
        <Typography variant="body2" sx={{ color: ink('madder') }}>
          {wrong}
        </Typography>
      )}
      {reading.state === 'empty' && (
        <Typography variant="body2" color="textSecondary">
          {t(`measure.hint.${kind}`)}
        </Typography>
      )}
      {waitsForCount && !whole && <Typography variant="body2">{t('measure.countChoose')}</Typography>}
      {waitsForCount && whole && <Typography variant="body2">{t('measure.countWhole')}</Typography>}
    </Box>
  )
  return (
    <Box>
      <Stack direction="row" sx={{ gap: 1.5, alignItems: 'flex-start' }}>
        <TextField
          inputRef={inputRef}
          label={whole ? t('measure.whole') : t('measure.spot', { n: place + 1 })}
          value={spot.typed}
          onChange={(event) => onChange({ ...spot, typed: event.target.value })}
          error={wrong !== null}
          slotProps={{
            htmlInput: {
              inputMode: entryForm(kind) === 'scale' ? 'decimal' : 'text',
              autoComplete: 'off',
              autoCapitalize: 'none',
              spellCheck: false,
              maxLength: 40,
              'data-takes-back': true,
              'aria-describedby': 'spot-says',
            },
          }}
          sx={{ width: 176, flexShrink: 0, '& input': { fontSize: 'size.head', fontWeight: 600, py: 1.1 } }}
          onKeyDown={(event) => {
            if (counted && event.altKey && event.code === 'KeyN') {
              event.preventDefault()
              flushSync(() => setRecounting(spot.typed))
              choices.current?.focus()
              return
            }
            if (event.key !== 'Enter') return
            event.preventDefault()
            if (whole && reading.state !== 'empty' && reading.state !== 'problem') countInput.current?.focus()
            else if (waitsForCount) choices.current?.focus()
            else onEnter(reading)
          }}
        />
        {whole ? (
          <TextField
            inputRef={countInput}
            label={t('measure.countLabel')}
            value={spot.pitches ?? ''}
            placeholder={chainPitches === null ? '' : String(chainPitches)}
            onChange={(event) => {
              const digits = event.target.value.replace(/\D/g, '').slice(0, 3)
              onChange({ ...spot, pitches: digits === '' ? null : Number(digits) })
            }}
            slotProps={{
              htmlInput: { inputMode: 'numeric', autoComplete: 'off', 'aria-describedby': 'spot-says' },
            }}
            sx={{ width: 104, flexShrink: 0, '& input': { fontSize: 'size.head', fontWeight: 600, py: 1.1 } }}
            onKeyDown={(event) => {
              if (event.key !== 'Enter') return
              event.preventDefault()
              // Enter on the recorded count takes it: it was looked at.
              if (spot.pitches === null && chainPitches !== null) onChange({ ...spot, pitches: chainPitches })
              else onEnter(reading)
            }}
          />
        ) : (
          says
        )}
      </Stack>
      {whole && <Box sx={{ mt: 0.5 }}>{says}</Box>}
      {candidates.length > 0 && !whole && (
        <Counts
          candidates={candidates}
          choices={choices}
          onPick={pick}
          onLeave={() => {
            setRecounting(null)
            inputRef.current?.focus()
          }}
        />
      )}
    </Box>
  )
}

/** Counts the text can be read as, each by its digit. */
function Counts({
  candidates,
  choices,
  onPick,
  onLeave,
}: {
  candidates: readonly PitchCandidate[]
  choices: RefObject<HTMLDivElement | null>
  onPick: (pitches: number) => void
  onLeave: () => void
}) {
  const { t } = useTranslation()
  return (
    <Stack
      ref={choices}
      direction="row"
      tabIndex={-1}
      role="group"
      aria-label={t('measure.countChoose')}
      sx={{ gap: 1, mt: 1, flexWrap: 'wrap', p: 0.5 }}
      onKeyDown={(event) => {
        const chosen = candidates[Number(event.key) - 1]
        if (chosen) {
          event.preventDefault()
          event.stopPropagation()
          onPick(chosen.pitches)
        } else if (event.key === 'Escape') {
          event.stopPropagation()
          onLeave()
        }
      }}
    >
      {candidates.map((candidate, i) => (
        <Button
          key={candidate.pitches}
          variant="outlined"
          onClick={() => onPick(candidate.pitches)}
          sx={{ px: 1.5, gap: 1 }}
        >
          <KeyCap>{i + 1}</KeyCap>
          {t(candidate.pitches % 2 === 1 ? 'measure.countOdd' : 'measure.count', { count: candidate.pitches })}
          <Box component="span" sx={{ fontWeight: 500 }}>
            {percent(candidate.elongation)} %
          </Box>
        </Button>
      ))}
    </Stack>
  )
}

function wrongOf(reading: SpotReading, t: TFunction): string | null {
  if (reading.state === 'problem') return problemText(t, reading.problem, { ...reading.values })
  if (reading.state !== 'no-count') return null
  const { below, above } = reading
  if (below === null) return t('measure.fitsNoneShort')
  return t('measure.fitsNone', {
    below: below.pitches,
    belowWorn: percent(below.elongation),
    above: above.pitches,
    aboveWorn: percent(above.elongation),
  })
}

/** What a spot comes to: elongation with its uncertainty, count, and how the text was read. */
function Says({
  reading,
  onRecount,
}: {
  reading: Extract<SpotReading, { state: 'ready' }>
  /** Says another count; left out where there is no other it can be. */
  onRecount: (() => void) | undefined
}) {
  const { t } = useTranslation()
  const { observed, span } = reading
  const said = observed.value === undefined ? intervalText(observed, t) : `${percent(observed.value)} %`
  return (
    <>
      <Typography sx={{ fontSize: 'size.lead', fontWeight: 700, whiteSpace: 'nowrap' }}>
        {said}{' '}
        <Box component="span" sx={{ fontWeight: 500 }}>
          ± {percent(observed.u)}
        </Box>{' '}
        <Box component="span" sx={{ fontSize: 'size.small' }}>
          <Why explanations={observed.explanations} label={t('measure.worn')} />
        </Box>
      </Typography>
      <Typography variant="body2" color="textSecondary">
        {[span === null ? null : spanText(reading, t), observed.borderline ? t('measure.borderline') : null]
          .filter((part) => part !== null)
          .join(', ')}
        {observed.temperature !== 0 &&
          `, ${t('measure.temperatureAdds', { percent: number(observed.temperature, 3) })}`}{' '}
        {onRecount && (
          <KeyButton cap="Alt N" size="small" onClick={onRecount} sx={{ minHeight: 32, px: 0.5 }}>
            {t('measure.recount')}
          </KeyButton>
        )}
      </Typography>
    </>
  )
}

/** How the text was read: count, and the length in the other unit or past its mark. */
function spanText({ observed, span }: Extract<SpotReading, { state: 'ready' }>, t: TFunction): string {
  const { pitches = 0, lengthMm = 0, oddCount, pastMarkMm } = observed
  const counted = t(oddCount ? 'measure.countOdd' : 'measure.count', { count: pitches })
  if (pastMarkMm !== undefined) {
    const mark = formatLength(pastMarkMm, { unit: span?.unit ?? 'mm', decimals: 0 })
    const { mm, past } = fromMark(lengthMm, pastMarkMm)
    const words = { mm: number(mm, 1), mark }
    return `${counted}, ${t(past ? 'measure.pastMark' : 'measure.beforeMark', words)}`
  }
  const other =
    span?.unit === 'in'
      ? `${number(lengthMm, 1)} mm`
      : formatLength(lengthMm, { unit: 'in', denominator: span?.denominator ?? 32 })
  return `${counted}, ${other}`
}
