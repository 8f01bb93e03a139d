import { IconButton } from '@mui/material'
import QrCodeScannerIcon from '@mui/icons-material/QrCodeScanner'
import { lazy, Suspense, useState } from 'react'
import { useHotkeys } from 'react-hotkeys-hook'
import { useTranslation } from 'react-i18next'

// What reads a picture is fetched when somebody scans, not with every page.
const ScanDialog = lazy(async () => ({ default: (await import('./ScanDialog.tsx')).ScanDialog }))

/** Beside the finder in every place: a tag is held before the camera instead of being typed. */
export function ScanButton() {
  const { t } = useTranslation()
  const [open, setOpen] = useState(false)
  useHotkeys('alt+t', () => setOpen(true), { enableOnFormTags: true, preventDefault: true })
  return (
    <>
      <IconButton
        aria-label={t('tags.scan')}
        aria-keyshortcuts="Alt+T"
        onClick={() => setOpen(true)}
        sx={{ width: 48, height: 48, ml: -1 }}
      >
        <QrCodeScannerIcon />
      </IconButton>
      {open && (
        <Suspense>
          <ScanDialog onClose={() => setOpen(false)} />
        </Suspense>
      )}
    </>
  )
}
