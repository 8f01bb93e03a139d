import { Box, Stack, Typography } from '@mui/material'
import { useTranslation } from 'react-i18next'
import { costOfLines, missingOf, type JobLine, linePrice } from '@pelrin/core'
import type { KeptParts } from '@pelrin/contract'
import { KeyButton } from '../../pieces/KeyButton.tsx'
import { ink } from '../../theme/theme.ts'
import { priceText } from './partLook.ts'
import { Refused } from '../../forms/Refused.tsx'

/** Parts of the job on this bike: what they are, whether they lie here, what they cost. */
export function JobParts({
  lines,
  kept,
  differs,
  busy,
  wrong,
  onKeep,
  onLetGo,
  onOrder,
}: {
  lines: readonly JobLine[]
  kept: KeptParts | null
  /** What is chosen now is not what is kept. */
  differs: boolean
  busy: boolean
  wrong: string | null
  onKeep: () => void
  onLetGo: () => void
  onOrder: () => void
}) {
  const { t } = useTranslation()
  const cost = costOfLines(lines)
  const missing = lines.some((line) => missingOf(line) > 0)
  const title = kept ? t('parts.keptTitle', { pitches: kept.pitches ?? 0, by: kept.by }) : t('parts.jobTitle')
  return (
    <Stack
      component="section"
      aria-label={kept ? t('parts.kept') : t('parts.jobTitle')}
      direction={{ xs: 'column', sm: 'row' }}
      sx={{ borderTop: `1.5px solid ${ink('edge')}`, py: 1, gap: 2, alignItems: { sm: 'flex-end' } }}
    >
      <Box sx={{ flex: 1, minWidth: 0 }}>
        <Typography variant="h3" component="h2" color="textSecondary">
          {title}
        </Typography>
        <Box component="ul" sx={{ m: 0, p: 0, listStyle: 'none' }}>
          {lines.map((line) => (
            <Box
              component="li"
              key={line.partId}
              sx={{ display: 'grid', gridTemplateColumns: 'minmax(0, 1fr) minmax(0, 190px) 76px', gap: 1.5 }}
            >
              <Typography noWrap sx={{ fontWeight: 600 }}>
                {line.quantity > 1 && `${line.quantity} × `}
                {line.name}
              </Typography>
              <Typography
                noWrap
                sx={{
                  color: missingOf(line) > 0 ? ink('madder') : 'text.secondary',
                  fontWeight: missingOf(line) > 0 ? 600 : 400,
                }}
              >
                {standing(line)}
              </Typography>
              <Typography sx={{ textAlign: 'right', fontVariantNumeric: 'tabular-nums' }}>
                {line.included ? '' : priceText(linePrice(line), t)}
              </Typography>
            </Box>
          ))}
        </Box>
        <Refused>{wrong}</Refused>
      </Box>
      <Stack direction="row" sx={{ gap: 1, alignItems: 'center', flexWrap: 'wrap', justifyContent: 'flex-end' }}>
        <Typography sx={{ fontSize: 'size.say', fontWeight: 700, fontVariantNumeric: 'tabular-nums', px: 1 }}>
          {cost === null ? t('parts.noPrice') : priceText(cost, t)}
        </Typography>
        {kept && (
          <KeyButton of="parts.letGo" variant="outlined" disabled={busy} onClick={onLetGo} sx={{ px: 1.5 }}>
            {t('parts.letGo')}
          </KeyButton>
        )}
        {missing && (
          <KeyButton
            of="parts.order"
            variant={kept ? 'contained' : 'outlined'}
            disabled={busy}
            onClick={onOrder}
            sx={{ px: 1.5 }}
          >
            {t('parts.order')}
          </KeyButton>
        )}
        {(!kept || differs) && (
          <KeyButton
            of="parts.keep"
            variant={kept ? 'outlined' : 'contained'}
            disabled={busy || lines.length === 0}
            onClick={onKeep}
            sx={{ px: 1.5 }}
          >
            {t(kept ? 'parts.keepInstead' : 'parts.keep')}
          </KeyButton>
        )}
      </Stack>
    </Stack>
  )

  function standing(line: JobLine): string {
    if (line.included) return t('parts.inItsBox')
    const missingNow = missingOf(line)
    if (missingNow > 0)
      return line.here > 0 ? t('parts.someMissing', { count: missingNow, here: line.here }) : t('parts.missing')
    return line.here < line.quantity ? t('parts.coming') : t('parts.hereFor')
  }
}
