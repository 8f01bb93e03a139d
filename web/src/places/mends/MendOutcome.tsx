import { Box, Button, Stack, TextField, Typography } from '@mui/material'
import { useTranslation } from 'react-i18next'
import { BREAK_CAUSES } from '@pelrin/contract'
import { Refused } from '../../forms/Refused.tsx'
import { ClosingDialog } from '../../pieces/ClosingDialog.tsx'
import { ReachMap, ReachWords } from '../../pieces/ReachMap.tsx'
import type { Mending } from './useMendBench.ts'

/** What the mended chain reaches, why it broke, what the rider is told; then it is mended, or replaced. */
export function MendOutcome(mending: Mending) {
  const { t } = useTranslation()
  const { bikeId, known, drive, draft, change, wrong, busy, counted, inspected, before, after, advice, save } = mending
  const { closing, setClosing, summary } = mending
  // What is worn is changed, not mended: that is what the eye lands on.
  const worn = summary.standing.word === 'change'
  return (
    <>
      {after && before && (
        <Box component="section" aria-label={t('mends.reach')}>
          <Typography variant="h3" component="h2" color="textSecondary" sx={{ mb: 0.5 }}>
            {t('mends.reach')}
          </Typography>
          <ReachMap gears={after} before={before} />
          <ReachWords gears={after} judged={drive.capacityTeeth !== null} />
        </Box>
      )}
      {drive.type === 'derailleur' && inspected && after === null && (
        <Typography color="textSecondary">{t('mends.reachUnknown')}</Typography>
      )}
      <TextField
        select
        label={t('mends.cause')}
        value={draft.cause ?? ''}
        onChange={(event) =>
          change({
            cause: event.target.value === '' ? null : (event.target.value as (typeof BREAK_CAUSES)[number]),
          })
        }
        error={wrong?.fields['cause'] !== undefined}
        helperText={wrong?.fields['cause']}
        slotProps={{ select: { native: true } }}
      >
        <option value="">–</option>
        {BREAK_CAUSES.map((one) => (
          <option key={one} value={one}>
            {t(`mends.causeOf.${one}`)}
          </option>
        ))}
      </TextField>
      <TextField
        label={t('mends.advised')}
        value={draft.advised ?? advice}
        onChange={(event) => change({ advised: event.target.value })}
        multiline
        minRows={4}
        error={wrong?.fields['advised'] !== undefined}
        helperText={wrong?.fields['advised']}
      />
      <Refused>{closing ? undefined : wrong?.sentence}</Refused>
      <Stack direction="row" sx={{ gap: 1.5, flexWrap: 'wrap', '& > *': { flex: '1 1 170px', minHeight: 64 } }}>
        <Button
          variant={worn ? 'outlined' : 'contained'}
          disabled={busy || !inspected}
          onClick={() => void save('mended')}
        >
          {t('mends.mended')}
        </Button>
        <Button
          variant={worn ? 'contained' : 'outlined'}
          disabled={busy || !counted}
          onClick={() => void save('replace')}
        >
          {t('mends.replace')}
        </Button>
      </Stack>
      {closing && (
        <ClosingDialog
          bikeId={bikeId}
          joint={null}
          mustBeNew
          other
          title={t('closing.title', { chain: known.chain?.name ?? '' })}
          busy={busy}
          wrong={wrong?.sentence}
          onClose={() => setClosing(false)}
          onClosed={(how) => void save('mended', how)}
        />
      )}
      <Typography variant="body2" color="textSecondary">
        {t('mends.replaceNote')}
      </Typography>
    </>
  )
}
