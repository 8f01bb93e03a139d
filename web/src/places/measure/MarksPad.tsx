import { Box, Stack, ToggleButton, ToggleButtonGroup, Typography } from '@mui/material'
import { formatMarks, parseMarks, type MarkState } from '@pelrin/core'
import { useTranslation } from 'react-i18next'
import { percent } from '../../messages/format.ts'

const STATES = ['out', 'push', 'in'] as const

/** What each mark of a gauge did, for a thumb; the letters say the same for the keyboard. */
export function MarksPad({
  marks,
  typed,
  onChange,
}: {
  marks: readonly number[]
  typed: string
  onChange: (typed: string) => void
}) {
  const { t } = useTranslation()
  const letters = typed.toLowerCase().match(/[^\s,/-]/gu) ?? []
  const read = parseMarks(typed, marks)
  const stateOf = (i: number): MarkState | null =>
    read.ok ? (read.seen[i]?.state ?? null) : (STATES.find((state) => formatMarks([state]) === letters[i]) ?? null)
  const set = (i: number, state: MarkState): void => {
    const states = marks.map((_, j): MarkState =>
      i === j ? state : (stateOf(j) ?? (j < i === (state !== 'out') ? 'in' : 'out')),
    )
    // One mark settles those beyond it: what stays out of a lower one stays out of a higher one.
    onChange(
      formatMarks(
        states.map((one, j) =>
          state === 'out' && j > i ? 'out' : state !== 'out' && j < i && one === 'out' ? 'in' : one,
        ),
      ),
    )
  }
  return (
    <Stack sx={{ gap: 1 }}>
      {marks.map((mark, i) => (
        <Box key={mark} sx={{ display: 'grid', gridTemplateColumns: '52px 1fr', alignItems: 'center', gap: 1 }}>
          <Typography sx={{ fontWeight: 700, fontSize: 'size.lead' }}>{percent(mark)}</Typography>
          <ToggleButtonGroup
            exclusive
            fullWidth
            value={stateOf(i)}
            aria-label={t('measure.markOf', { mark: percent(mark) })}
            onChange={(_, state: MarkState | null) => state !== null && set(i, state)}
          >
            {STATES.map((state) => (
              <ToggleButton key={state} value={state} sx={{ py: 0.25, lineHeight: 1.1, fontSize: 'size.small' }}>
                {t(`measure.mark.${state}`)}
              </ToggleButton>
            ))}
          </ToggleButtonGroup>
        </Box>
      ))}
    </Stack>
  )
}
