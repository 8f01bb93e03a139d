import { Box, ButtonBase, Typography } from '@mui/material'
import { useTranslation } from 'react-i18next'
import { useSurroundings } from '../../app/surroundings.ts'
import { KeyCap } from '../../pieces/KeyCap.tsx'
import { JudgedByDialog } from './JudgedByDialog.tsx'
import { OnTheWallDialog } from './OnTheWallDialog.tsx'
import { useFirstDay } from './useFirstDay.ts'

/** What an empty shop opens on: what there is to set up, each by its digit, and what comes in. Any of it can wait. */
export function FirstDay() {
  const { t } = useTranslation()
  const { session } = useSurroundings()
  const { steps, stands, go, open, close, rules, instruments } = useFirstDay()
  return (
    <Box component="section" aria-label={t('firstDay.next')} sx={{ maxWidth: 820 }}>
      <Typography variant="h1">{t('firstDay.nextTitle', { shop: session.shop.name })}</Typography>
      <Typography color="textSecondary" sx={{ mb: 1.5 }}>
        {t('firstDay.nextLead')}
      </Typography>
      <Box component="ol" sx={{ listStyle: 'none', m: 0, p: 0 }}>
        {steps.map((step, i) => (
          <Box component="li" key={step} sx={{ borderTop: 1, borderColor: 'divider' }}>
            <ButtonBase
              onClick={go[step]}
              sx={{
                width: '100%',
                minHeight: 64,
                display: 'grid',
                gridTemplateColumns: 'auto minmax(0, 1fr)',
                columnGap: 2,
                textAlign: 'left',
                px: 1,
              }}
            >
              <KeyCap>{i + 1}</KeyCap>
              <Box>
                <Typography sx={{ fontSize: 'size.lead', fontWeight: 700 }}>{t(`firstDay.step.${step}`)}</Typography>
                <Typography color="textSecondary" noWrap>
                  {stands[step] ?? t(`firstDay.why.${step}`)}
                </Typography>
              </Box>
            </ButtonBase>
          </Box>
        ))}
      </Box>
      {open === 'judged' && rules && <JudgedByDialog rules={rules} onClose={close} />}
      {open === 'wall' && instruments && <OnTheWallDialog instruments={instruments} onClose={close} />}
    </Box>
  )
}
