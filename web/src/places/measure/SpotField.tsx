import { Box, Button, IconButton, Stack, TextField, Typography } from '@mui/material'
import CloseIcon from '@mui/icons-material/Close'
import type { TFunction } from 'i18next'
import { useRef, type RefObject } from 'react'
import { useTranslation } from 'react-i18next'
import { formatLength } from '@pelrin/core'
import { number, percent } from '../../messages/format.ts'
import { KeyCap } from '../../pieces/KeyCap.tsx'
import { Why } from '../../pieces/Why.tsx'
import { ink } from '../../theme/theme.ts'
import type { DraftSpot } from './draft.ts'
import type { SpotReading } from './evaluate.ts'

/** One spot: what the rule shows, the counts it can be, and what it comes to. */
export function SpotField({
  index,
  spot,
  reading,
  error,
  inputRef,
  onChange,
  onEnter,
  onRemove,
  onFocus,
}: {
  index: number
  spot: DraftSpot
  reading: SpotReading
  /** A problem the server named for this spot. */
  error: string | undefined
  inputRef: RefObject<HTMLInputElement | null>
  onChange: (spot: DraftSpot) => void
  /** Enter with a count known (or nothing typed): go on. */
  onEnter: (reading: SpotReading) => void
  onRemove: (() => void) | undefined
  onFocus: () => void
}) {
  const { t } = useTranslation()
  const choices = useRef<HTMLDivElement>(null)
  const pick = (pitches: number): void => {
    onChange({ ...spot, pitches })
    inputRef.current?.focus()
  }
  const wrong =
    error !== undefined
      ? t(`problems.${error}`, { pitches: spot.pitches ?? '', elongation: '' })
      : problemText(reading, t)
  return (
    <Box>
      <Stack direction="row" sx={{ gap: 1.5, alignItems: 'flex-start' }}>
        <TextField
          inputRef={inputRef}
          label={t('measure.spot', { n: index + 1 })}
          value={spot.typed}
          onChange={(event) => onChange({ ...spot, typed: event.target.value })}
          onFocus={onFocus}
          error={wrong !== null}
          slotProps={{
            inputLabel: { shrink: true },
            htmlInput: {
              inputMode: 'text',
              autoComplete: 'off',
              spellCheck: false,
              maxLength: 40,
              'data-takes-back': index === 0,
              'aria-describedby': `spot-${index}-says`,
            },
          }}
          placeholder={index === 0 ? '204.6' : ''}
          sx={{ width: 190, flexShrink: 0, '& input': { fontSize: 26, fontWeight: 600, py: 1.1 } }}
          onKeyDown={(event) => {
            if (event.key !== 'Enter') return
            event.preventDefault()
            if (reading.state === 'choose') choices.current?.focus()
            else onEnter(reading)
          }}
        />
        <Box id={`spot-${index}-says`} aria-live="polite" sx={{ flex: 1, minWidth: 0, pt: 0.25 }}>
          {reading.state === 'ready' && wrong === null && <Says reading={reading} />}
          {wrong !== null && (
            <Typography variant="body2" sx={{ color: ink('madder') }}>
              {wrong}
            </Typography>
          )}
          {reading.state === 'empty' && index === 0 && (
            <Typography variant="body2" color="textSecondary">
              {t('measure.length')}: {t('measure.lengthHint')}
            </Typography>
          )}
          {reading.state === 'choose' && <Typography variant="body2">{t('measure.countChoose')}</Typography>}
        </Box>
        {onRemove && (
          <IconButton
            aria-label={t('measure.removeSpot', { n: index + 1 })}
            onClick={onRemove}
            sx={{ width: 48, height: 48 }}
          >
            <CloseIcon fontSize="small" />
          </IconButton>
        )}
      </Stack>
      {reading.state === 'choose' && (
        <Stack
          ref={choices}
          direction="row"
          tabIndex={-1}
          role="group"
          aria-label={t('measure.countChoose')}
          sx={{ gap: 1, mt: 1, flexWrap: 'wrap', p: 0.5 }}
          onKeyDown={(event) => {
            const chosen = reading.candidates[Number(event.key) - 1]
            if (chosen) {
              event.preventDefault()
              event.stopPropagation()
              pick(chosen.pitches)
            } else if (event.key === 'Escape') {
              event.stopPropagation()
              inputRef.current?.focus()
            }
          }}
        >
          {reading.candidates.map((candidate, i) => (
            <Button
              key={candidate.pitches}
              variant="outlined"
              onClick={() => pick(candidate.pitches)}
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
      )}
    </Box>
  )
}

function problemText(reading: SpotReading, t: TFunction): string | null {
  if (reading.state === 'problem') return t(`problems.${reading.problem}`)
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
function Says({ reading }: { reading: Extract<SpotReading, { state: 'ready' }> }) {
  const { t } = useTranslation()
  const { length, pitches, observation } = reading
  const inches = formatLength(length.lengthMm, { unit: 'in', denominator: length.denominator ?? 32 })
  const past = length.pastMarkMm
  const markName =
    past === null
      ? ''
      : length.unit === 'in'
        ? formatLength(past, { unit: 'in', decimals: 0 })
        : formatLength(past, { unit: 'mm', decimals: 0 })
  return (
    <>
      <Typography sx={{ fontSize: 19, fontWeight: 700, whiteSpace: 'nowrap' }}>
        {percent(observation.value)} %{' '}
        <Box component="span" sx={{ fontWeight: 500 }}>
          ± {percent(observation.u)}
        </Box>{' '}
        <Box component="span" sx={{ fontSize: 15 }}>
          <Why explanations={[observation.explanation, observation.uExplanation]} label={t('measure.worn')} />
        </Box>
      </Typography>
      <Typography variant="body2" color="textSecondary">
        {t(observation.oddCount ? 'measure.countOdd' : 'measure.count', { count: pitches })}
        {past !== null
          ? `, ${t(length.lengthMm >= past ? 'measure.pastMark' : 'measure.beforeMark', { mm: number(Math.abs(length.lengthMm - past), 1), mark: markName })}`
          : length.unit === 'in'
            ? `, ${number(length.lengthMm, 1)} mm`
            : `, ${inches}`}
      </Typography>
    </>
  )
}
