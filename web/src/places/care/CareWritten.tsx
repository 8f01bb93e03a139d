import { Checkbox, FormControlLabel, Stack, ToggleButton, ToggleButtonGroup, Typography } from '@mui/material'
import { useTranslation } from 'react-i18next'
import { cleaningNeeded, CLEANINGS, type Cleaning } from '@pelrin/core'
import { KeyButton } from '../../pieces/KeyButton.tsx'
import { ink } from '../../theme/theme.ts'
import type { CareView } from './useCarePlace.ts'

/** How it was cleaned and where, and what else happened to the chain. */
export function CareWritten({
  chosen,
  before,
  cleaning,
  setCleaning,
  atHome,
  setAtHome,
  busy,
  wash,
  squeak,
  toPot,
  undo,
}: CareView) {
  const { t } = useTranslation()
  const needed = cleaningNeeded({ care: chosen, before, cleaning })
  return (
    <>
      <Stack direction="row" sx={{ gap: 1.5, alignItems: 'center', flexWrap: 'wrap' }}>
        <ToggleButtonGroup
          sx={{ flexWrap: 'wrap' }}
          exclusive
          value={needed}
          aria-label={t('caring.cleaned')}
          onChange={(_, one: Cleaning | null) => one && setCleaning(one)}
        >
          {CLEANINGS.map((one) => (
            <ToggleButton key={one} value={one} sx={{ px: 1.5 }}>
              {t(`caring.cleaning.${one}`)}
            </ToggleButton>
          ))}
        </ToggleButtonGroup>
        <FormControlLabel
          control={<Checkbox checked={atHome} onChange={(event) => setAtHome(event.target.checked)} />}
          label={t('caring.atHome')}
        />
      </Stack>
      <Typography variant="body2" color="textSecondary">
        {t(`caring.cleaningFor.${needed}`)} {t('caring.onOrOff')}
      </Typography>
      {needed !== cleaning && (
        <Typography sx={{ color: ink('brass'), fontWeight: 600 }}>{t('caring.stripFirst')}</Typography>
      )}
      <Stack direction="row" sx={{ gap: 1, flexWrap: 'wrap' }}>
        <KeyButton of="care.wash" variant="outlined" disabled={busy} onClick={() => void wash()}>
          {t('caring.wash')}
        </KeyButton>
        <KeyButton of="care.squeak" variant="outlined" disabled={busy} onClick={() => void squeak()}>
          {t('caring.squeak')}
        </KeyButton>
        {toPot && (
          <KeyButton of="care.toPot" variant="outlined" disabled={busy} onClick={() => void toPot()}>
            {t('pot.fromCare')}
          </KeyButton>
        )}
        {undo && (
          <KeyButton of="care.undo" disabled={busy} onClick={undo}>
            {t('caring.undo')}
          </KeyButton>
        )}
      </Stack>
    </>
  )
}
