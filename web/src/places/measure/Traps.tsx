import { Box, Typography } from '@mui/material'
import { useState } from 'react'
import { useHotkeys } from 'react-hotkeys-hook'
import { useTranslation } from 'react-i18next'
import type { Instrument } from '@pelrin/contract'
import { day, number } from '../../messages/format.ts'
import { KeyButton } from '../../pieces/KeyButton.tsx'
import { ink } from '../../theme/theme.ts'
import { HowTo } from './drawings/HowTo.tsx'

/** What goes wrong with the instrument in hand, in a few words beside it; what its record warns of first. */
export function Traps({ instrument, preloadKg }: { instrument: Instrument; preloadKg: number }) {
  const { t } = useTranslation()
  const [shown, setShown] = useState(false)
  useHotkeys('alt+h', () => setShown(true), { enableOnFormTags: true, preventDefault: true })
  const warnings = [
    instrument.standing === 'out-of-use' ? t('problems.instrument-out-of-use') : null,
    instrument.reads === 'early' ? t('instrument.readsEarly') : null,
    instrument.checkLapsed
      ? instrument.checkedOn === null
        ? t('instrument.neverChecked')
        : t('instrument.lapsedSince', { date: day(instrument.checkedOn) })
      : null,
    instrument.seesRollerWear ? t('instrument.seesRollerWear') : null,
  ].filter((one) => one !== null)
  const traps = t(`measure.trap.${instrument.kind}`, {
    returnObjects: true,
    preload: `${number(preloadKg, 0)} kg`,
  }) as readonly string[]
  return (
    <Box>
      <KeyButton
        cap="Alt H"
        onClick={() => setShown(true)}
        sx={{ px: 0.5, width: '100%', justifyContent: 'space-between' }}
      >
        {t('measure.howToOpen')}
      </KeyButton>
      <HowTo kind={instrument.kind} open={shown} onClose={() => setShown(false)} />
      <Box component="ul" aria-label={t('measure.trapsTitle')} sx={{ m: 0, pl: 2.25, '& li': { mb: 0.25 } }}>
        {warnings.map((warning) => (
          <Typography component="li" variant="body2" key={warning} sx={{ color: ink('brass'), fontWeight: 600 }}>
            {warning}
          </Typography>
        ))}
        {traps.map((trap) => (
          <Typography component="li" variant="body2" color="textSecondary" key={trap}>
            {trap}
          </Typography>
        ))}
      </Box>
    </Box>
  )
}
