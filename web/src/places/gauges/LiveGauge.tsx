import { Box, Button, FormControlLabel, Stack, Switch, Typography } from '@mui/material'
import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import { v7 } from 'uuid'
import { endpoints, type Instrument } from '@pelrin/contract'
import { ask } from '../../api/client.ts'
import { useGauge } from '../../api/useGauge.ts'
import { percent } from '../../messages/format.ts'
import { GaugeStrip } from '../../pieces/GaugeStrip.tsx'

const FAULTS = ['slow', 'silent', 'half', 'garbage', 'duplicates', 'drift', 'flood'] as const
const SHOWN = 8

/** A connected gauge as it speaks; for the stand-in also the faults it can be given. */
export function LiveGauge({ instrument }: { instrument: Instrument }) {
  const { t } = useTranslation()
  const [openedAt] = useState(() => Date.now())
  const [readings, setReadings] = useState<readonly number[]>([])
  const [faults, setFaults] = useState<readonly string[]>([])
  const { gauge, take } = useGauge(instrument.id, 'gauges', (reading) =>
    setReadings((before) => [reading, ...before].slice(0, SHOWN)),
  )
  if (!gauge) return null
  const setFault = (fault: (typeof FAULTS)[number], on: boolean): void => {
    setFaults((before) => (on ? [...before, fault] : before.filter((one) => one !== fault)))
    void ask(endpoints.moveStandIn, {
      params: { id: instrument.id },
      body: { do: 'fault', fault, on },
      key: v7(),
    }).catch(() => setFaults((before) => before.filter((one) => one !== fault)))
  }
  return (
    <Box component="section" aria-label={t('gauge.live')} sx={{ mt: 3 }}>
      <Typography variant="h3" component="h3" color="textSecondary" sx={{ mb: 0.75 }}>
        {t('gauge.live')}
      </Typography>
      <GaugeStrip instrument={instrument} gauge={gauge} openedAt={openedAt} onTake={take} />
      <Typography sx={{ mt: 1, minHeight: 28, fontWeight: 600 }} data-testid="gauge-readings">
        {readings.length === 0 ? t('gauge.noReading') : readings.map((one) => `${percent(one)} %`).join(' · ')}
      </Typography>
      {gauge.garbled > 0 && (
        <Typography variant="body2" color="textSecondary">
          {t('gauge.garbled', { count: gauge.garbled })}
        </Typography>
      )}
      {instrument.standIn && (
        <>
          <Typography variant="body2" color="textSecondary" sx={{ mt: 1 }}>
            {t('gauge.faults')}
          </Typography>
          <Stack direction="row" sx={{ flexWrap: 'wrap', columnGap: 2 }}>
            {FAULTS.map((fault) => (
              <FormControlLabel
                key={fault}
                control={
                  <Switch checked={faults.includes(fault)} onChange={(_, checked) => setFault(fault, checked)} />
                }
                label={t(`gauge.fault.${fault}`)}
              />
            ))}
          </Stack>
          <Button
            onClick={() =>
              void ask(endpoints.moveStandIn, {
                params: { id: instrument.id },
                body: { do: 'unplug' },
                key: v7(),
              }).catch(() => undefined)
            }
            sx={{ px: 0.5 }}
          >
            {t('gauge.unplug')}
          </Button>
        </>
      )}
    </Box>
  )
}
