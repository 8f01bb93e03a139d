import { Box, Button, Stack, TextField, Typography } from '@mui/material'
import type { RefObject } from 'react'
import { useTranslation } from 'react-i18next'
import type { BikeRecord } from '@pelrin/contract'
import { day, distance } from '../../messages/format.ts'
import { KeyCap } from '../../pieces/KeyCap.tsx'
import { ink } from '../../theme/theme.ts'
import type { Draft } from './draft.ts'
import type { OdometerReading } from './evaluate.ts'
import { problemText } from '../../messages/said.ts'

/** The odometer at this visit. Lower than last time, or far more, is asked about, never refused. */
export function OdometerField({
  odometer,
  reading,
  last,
  unit,
  error,
  inputRef,
  onChange,
  onEnter,
  onAnswer,
}: {
  odometer: Draft['odometer']
  reading: OdometerReading
  last: BikeRecord['lastOdometer']
  unit: 'km' | 'mi'
  error: string | undefined
  inputRef: RefObject<HTMLInputElement | null>
  onChange: (odometer: Draft['odometer']) => void
  onEnter: () => void
  /** What the doubtful value means was said; saving may go on. */
  onAnswer: (odometer: Draft['odometer']) => void
}) {
  const { t } = useTranslation()
  // The server asks too: it knows values this screen does not.
  const told = error === 'odometer-lower' || error === 'odometer-much' ? error : null
  const doubt = reading.state === 'ready' && odometer.lower === null ? (reading.doubt ?? told) : null
  const asks = doubt !== null
  const wrong =
    reading.state === 'problem'
      ? t(`problems.${reading.problem}`)
      : error !== undefined && !asks
        ? problemText(t, error)
        : null
  const answers = doubt === 'odometer-much' ? (['as-it-is'] as const) : (['restarted', 'as-it-is'] as const)
  return (
    <Box
      onKeyDown={(event) => {
        if (!asks || event.target === inputRef.current) return
        const answer = answers[Number(event.key) - 1]
        if (answer) {
          event.preventDefault()
          event.stopPropagation()
          onAnswer({ ...odometer, lower: answer })
        }
      }}
    >
      <Stack direction="row" sx={{ gap: 1.5, alignItems: 'flex-start' }}>
        <TextField
          inputRef={inputRef}
          label={t('measure.odometer')}
          value={odometer.typed}
          onChange={(event) => onChange({ ...odometer, typed: event.target.value, lower: null })}
          error={wrong !== null || asks}
          slotProps={{
            htmlInput: {
              inputMode: 'decimal',
              autoComplete: 'off',
              maxLength: 20,
              'aria-describedby': 'odometer-says',
            },
            input: { endAdornment: <Typography color="textSecondary">{t(`unit.${unit}`)}</Typography> },
          }}
          sx={{ width: 190, flexShrink: 0, '& input': { fontSize: 'size.say', fontWeight: 600, py: 1.25 } }}
          onKeyDown={(event) => {
            if (event.key !== 'Enter') return
            event.preventDefault()
            onEnter()
          }}
        />
        <Box id="odometer-says" aria-live="polite" sx={{ pt: 0.5 }}>
          {wrong !== null ? (
            <Typography variant="body2" sx={{ color: ink('madder') }}>
              {wrong}
            </Typography>
          ) : (
            <>
              {reading.state === 'ready' && reading.doubt !== 'odometer-lower' && last && (
                <Typography sx={{ fontWeight: 600 }}>
                  {t('measure.odometerSince', { km: distance(reading.km - last.km, unit) })}
                </Typography>
              )}
              <Typography variant="body2" color="textSecondary">
                {last
                  ? t('measure.odometerLast', { value: distance(last.km, unit), date: day(last.at) })
                  : t('measure.odometerHint')}
              </Typography>
            </>
          )}
        </Box>
      </Stack>
      {asks && (
        <Box role="group" aria-label={t('measure.odometer')} sx={{ mt: 1 }}>
          <Typography variant="body2" sx={{ color: ink('madder'), mb: 0.75 }}>
            {doubt === 'odometer-lower' && last
              ? t('measure.lower', { last: distance(last.km, unit) })
              : doubt === 'odometer-much' && last
                ? t('measure.much', { last: distance(last.km, unit), date: day(last.at) })
                : t(`problems.${doubt}`)}
          </Typography>
          <Stack direction="row" sx={{ gap: 1, flexWrap: 'wrap' }}>
            {answers.map((answer, i) => (
              <Button
                key={answer}
                variant="outlined"
                data-answer={i + 1}
                onClick={() => onAnswer({ ...odometer, lower: answer })}
                sx={{ px: 1.5, gap: 1 }}
              >
                <KeyCap>{i + 1}</KeyCap>
                {t(
                  answer === 'restarted'
                    ? 'measure.lowerRestarted'
                    : doubt === 'odometer-much'
                      ? 'measure.muchAsIs'
                      : 'measure.lowerAsIs',
                )}
              </Button>
            ))}
          </Stack>
        </Box>
      )}
    </Box>
  )
}
