import { Box, Typography } from '@mui/material'
import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import { useNavigate } from 'react-router'
import { SheetDialog } from '../../pieces/SheetDialog.tsx'
import { scannedTag } from './scanned.ts'
import { useScan } from './useScan.ts'

/** Reads a bike's tag by the camera of the tablet, and goes to its bike. */
export function ScanDialog({ onClose }: { onClose: () => void }) {
  const { t } = useTranslation()
  const navigate = useNavigate()
  /** What was read that is no tag. */
  const [other, setOther] = useState<string | null>(null)
  const { scan, video } = useScan((text) => {
    const tag = scannedTag(text)
    if (tag === text) {
      setOther(text)
      return
    }
    onClose()
    void navigate(`/t/${encodeURIComponent(tag)}`)
  })
  const sees = scan === 'asking' || scan === 'looking'
  return (
    <SheetDialog open onClose={onClose} title={t('tags.scan')} maxWidth="sm" fullWidth>
      {sees && (
        <Box
          component="video"
          ref={video}
          autoPlay
          muted
          playsInline
          aria-hidden
          sx={{ display: 'block', width: '100%', aspectRatio: '4 / 3', objectFit: 'cover', bgcolor: '#1d2328' }}
        />
      )}
      <Typography
        role={sees ? 'status' : 'alert'}
        color={sees ? undefined : 'error'}
        sx={{ pt: 1.5, fontSize: 'size.lead' }}
      >
        {other !== null && sees ? t('tags.other', { text: other }) : t(`tags.camera.${scan}`)}
      </Typography>
    </SheetDialog>
  )
}
