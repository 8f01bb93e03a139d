import { Box, Button, Stack, Typography } from '@mui/material'
import { useTranslation } from 'react-i18next'
import { v7 } from 'uuid'
import { endpoints, type Instrument } from '@pelrin/contract'
import { ask } from '../api/client.ts'
import type { GaugeNow } from '../api/useGauge.ts'
import { clock } from '../messages/format.ts'
import { ink } from '../theme/theme.ts'

/** How the connected gauge stands: whether it is there, its battery, when it was zeroed; and its button, for the stand-in. */
export function GaugeStrip({
  instrument,
  gauge,
  openedAt,
  onTake,
}: {
  instrument: Instrument
  gauge: GaugeNow
  /** When this bike was begun, ms: a gauge is zeroed before each bike. */
  openedAt: number
  onTake: () => void
}) {
  const { t } = useTranslation()
  const well = gauge.state === 'connected' && gauge.here
  const zeroedHere = gauge.zeroedAt !== null && new Date(gauge.zeroedAt).getTime() >= openedAt
  const move = (what: 'press' | 'squeeze'): void => {
    void ask(endpoints.moveStandIn, { params: { id: instrument.id }, body: { do: what }, key: v7() }).catch(
      () => undefined,
    )
  }
  return (
    <Box
      data-testid="gauge"
      sx={{ borderLeft: `4px solid ${ink(well ? 'steel' : 'brass')}`, pl: 1.5 }}
      aria-live="polite"
    >
      <Typography variant="body2" sx={{ fontWeight: 600, color: ink(well ? 'steel' : 'brass') }}>
        {gauge.here ? t(`gauge.state.${gauge.state}`) : t('gauge.elsewhere')}
        {gauge.state === 'connected' && gauge.battery !== null && `, ${t('gauge.battery', { percent: gauge.battery })}`}
      </Typography>
      {gauge.state === 'connected' && (
        <Typography variant="body2" sx={{ color: zeroedHere ? 'text.secondary' : ink('brass') }}>
          {zeroedHere ? t('gauge.zeroedAt', { time: clock(gauge.zeroedAt) }) : t('gauge.notZeroed')}
        </Typography>
      )}
      <Stack direction="row" sx={{ gap: 1, mt: 0.5 }}>
        {!gauge.here && (
          <Button variant="outlined" onClick={onTake}>
            {t('gauge.take')}
          </Button>
        )}
        {instrument.standIn && gauge.state === 'connected' && gauge.here && (
          <>
            <Button variant="outlined" onClick={() => move('press')}>
              {t('gauge.press')}
            </Button>
            <Button variant="outlined" onClick={() => move('squeeze')}>
              {t('gauge.squeeze')}
            </Button>
          </>
        )}
      </Stack>
    </Box>
  )
}
