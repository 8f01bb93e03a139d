import { Box, Stack, Typography } from '@mui/material'
import { useTranslation } from 'react-i18next'
import type { RideImport } from '@pelrin/contract'
import { clock, day, distance, number } from '../../messages/format.ts'
import { ink } from '../../theme/theme.ts'
import { saidOf } from '../../messages/said.ts'

/** What came of each file, those that want looking at first. */
export function ImportLines({ current, unit }: { current: RideImport; unit: 'km' | 'mi' }) {
  const { t } = useTranslation()
  const order = { refused: 0, new: 1, known: 2 } as const
  const lines = [...current.lines].sort((a, b) => order[a.outcome] - order[b.outcome])
  if (lines.length === 0) return null
  return (
    <Box
      component="ul"
      aria-label={t('imports.lines')}
      sx={{ listStyle: 'none', m: 0, p: 0, maxHeight: 360, overflow: 'auto' }}
      tabIndex={0}
    >
      {lines.map((line, i) => (
        <Box
          component="li"
          key={`${line.file}/${line.row ?? ''}/${i}`}
          sx={{ borderTop: 1, borderColor: 'divider', py: 0.6 }}
        >
          <Stack direction="row" sx={{ justifyContent: 'space-between', gap: 1 }}>
            <Typography variant="body2" sx={{ fontWeight: 600, overflowWrap: 'anywhere' }}>
              {line.file}
              {line.row !== undefined && `, ${t('imports.row', { row: line.row })}`}
            </Typography>
            <Typography
              variant="body2"
              sx={{
                fontWeight: 700,
                whiteSpace: 'nowrap',
                color:
                  line.outcome === 'refused' ? ink('madder') : line.outcome === 'new' ? ink('steel') : 'text.secondary',
              }}
            >
              {t(`imports.outcome.${line.outcome}`)}
            </Typography>
          </Stack>
          <Typography variant="body2" color="textSecondary">
            {line.km !== undefined && line.startedAt !== undefined
              ? `${day(line.startedAt)}, ${clock(line.startedAt)}, ${distance(line.km, unit)}, ${number(line.minutes ?? 0, 0)} min`
              : saidOf(t, 'imports.code', line.code)}
            {line.outcome === 'known' && `. ${saidOf(t, 'imports.code', line.code)}`}
            {(line.gaps ?? 0) + (line.jumps ?? 0) > 0 &&
              `. ${t('imports.left', { gaps: line.gaps ?? 0, jumps: line.jumps ?? 0 })}`}
          </Typography>
        </Box>
      ))}
    </Box>
  )
}
