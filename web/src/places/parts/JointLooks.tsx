import { Box, ButtonBase, Stack, Typography } from '@mui/material'
import { useHotkeys } from 'react-hotkeys-hook'
import { useTranslation } from 'react-i18next'
import { KeyCap } from '../../pieces/KeyCap.tsx'
import { JointDrawing, type JointLook } from '../../pieces/JointDrawing.tsx'
import { ink } from '../../theme/theme.ts'

const LOOKS: readonly JointLook[] = ['link', 'pin', 'riveted', 'clip']

/** What a chain is closed with, told by drawings: chosen by number key or thumb. */
export function JointLooks({ look, onLook }: { look: JointLook | null; onLook: (look: JointLook) => void }) {
  const { t } = useTranslation()
  useHotkeys(
    '1, 2, 3, 4',
    (event) => {
      const found = LOOKS[Number(event.key) - 1]
      if (found) onLook(found)
    },
    { preventDefault: true },
  )
  return (
    <Box
      role="radiogroup"
      aria-label={t('parts.joint.title')}
      sx={{ display: 'grid', gridTemplateColumns: { xs: '1fr 1fr', sm: 'repeat(4, 1fr)' }, gap: 1.5 }}
    >
      {LOOKS.map((one, i) => (
        <ButtonBase
          key={one}
          role="radio"
          aria-checked={look === one}
          onClick={() => onLook(one)}
          sx={{
            display: 'flex',
            flexDirection: 'column',
            justifyContent: 'flex-start',
            alignItems: 'stretch',
            textAlign: 'left',
            p: 1.25,
            font: 'inherit',
            bgcolor: look === one ? ink('blade') : 'background.paper',
            border: 1.5,
            borderColor: look === one ? ink('steel') : 'divider',
          }}
        >
          <JointDrawing joint={one} label={t(`parts.joint.${one}`)} />
          <Stack direction="row" sx={{ justifyContent: 'space-between', alignItems: 'center', mt: 0.5 }}>
            <Typography sx={{ fontWeight: 700 }}>{t(`parts.joint.${one}`)}</Typography>
            <KeyCap>{String(i + 1)}</KeyCap>
          </Stack>
          <Typography variant="body2" color="textSecondary">
            {t(`parts.joint.sign.${one}`)}
          </Typography>
        </ButtonBase>
      ))}
    </Box>
  )
}
