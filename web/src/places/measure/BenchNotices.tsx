import { Alert, Button, Typography } from '@mui/material'
import { useTranslation } from 'react-i18next'
import { ink } from '../../theme/theme.ts'
import type { Bench } from './useMeasureBench.ts'

/** What is to be known before anything is typed: another chain is on by now, a round was left half typed, a new chain is read once. */
export function BenchNotices({ record, corrects, draft, restored, change, clear, clearRefusal, isNew }: Bench) {
  const { t } = useTranslation()
  return (
    <>
      {!corrects && draft.fittingId !== (record.chain?.fittingId ?? '') && (
        <Alert
          severity="warning"
          icon={false}
          action={
            record.chain && (
              <Button
                size="small"
                onClick={() => {
                  clearRefusal()
                  change({
                    fittingId: record.chain?.fittingId ?? '',
                    keepsTime: false,
                    takenAt: new Date().toISOString(),
                  })
                }}
              >
                {t('measure.thisChain')}
              </Button>
            )
          }
        >
          {t('measure.otherChain')}
        </Alert>
      )}
      {restored && (
        <Alert
          severity="info"
          icon={false}
          sx={{ py: 0, alignItems: 'center' }}
          action={
            <Button size="small" onClick={clear} sx={{ minHeight: 40 }}>
              {t('measure.discard')}
            </Button>
          }
        >
          {t('measure.restored')}
        </Alert>
      )}
      {isNew && !corrects && (
        <Typography variant="body2" sx={{ color: ink('brass'), fontWeight: 600 }}>
          {t('measure.baselineAsk')}
        </Typography>
      )}
    </>
  )
}
