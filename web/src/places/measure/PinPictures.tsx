import { Box, ButtonBase, Typography } from '@mui/material'
import { PIN_PICTURES, type PinPicture } from '@pelrin/core'
import { useTranslation } from 'react-i18next'
import { ink } from '../../theme/theme.ts'

/** How far the mark lies from the pin's centre, in pin radii. */
const OFFSET: Record<PinPicture, number> = { centre: 0, half: 0.5, edge: 1, clear: 1.5 }

/** Without reading a length: where the rule's mark lies on the last pin. */
export function PinPictures({
  picture,
  onPick,
}: {
  picture: PinPicture | null
  onPick: (picture: PinPicture | null) => void
}) {
  const { t } = useTranslation()
  return (
    <Box role="group" aria-label={t('measure.pictureAsk')}>
      <Typography variant="body2" color="textSecondary" sx={{ mb: 0.5 }}>
        {t('measure.pictureAsk')}
      </Typography>
      <Box sx={{ display: 'grid', gridTemplateColumns: 'repeat(4, 1fr)', gap: 0.75 }}>
        {PIN_PICTURES.map((one) => {
          const on = picture === one
          return (
            <ButtonBase
              key={one}
              aria-pressed={on}
              onClick={() => onPick(on ? null : one)}
              sx={{
                minHeight: 64,
                flexDirection: 'column',
                border: `1.5px solid ${ink('edge')}`,
                borderRadius: 0.5,
                bgcolor: on ? ink('steel') : ink('sheet'),
                color: on ? 'primary.contrastText' : ink('ink'),
              }}
            >
              <svg viewBox="-26 -15 52 30" width={62} height={36} aria-hidden>
                <circle cx={6} r={11} fill="none" stroke="currentColor" strokeWidth={1.6} />
                <circle cx={6} r={1.4} fill="currentColor" />
                <path d={`M${6 - OFFSET[one] * 11} -15V15`} stroke="currentColor" strokeWidth={2.4} />
              </svg>
              <Typography component="span" sx={{ fontSize: 'size.cap', fontWeight: 600, lineHeight: 1.1 }}>
                {t(`measure.picture.${one}`)}
              </Typography>
            </ButtonBase>
          )
        })}
      </Box>
    </Box>
  )
}
