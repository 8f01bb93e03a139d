import { Dialog, DialogContent, DialogTitle, IconButton } from '@mui/material'
import CloseIcon from '@mui/icons-material/Close'
import { useId, type ReactNode } from 'react'
import { useHotkeys } from 'react-hotkeys-hook'
import { useTranslation } from 'react-i18next'

/** Something to read over the place, closed by Escape or by its cross. */
export function SheetDialog({
  open,
  onClose,
  title,
  maxWidth,
  fullWidth = false,
  children,
}: {
  open: boolean
  onClose: () => void
  title: string
  maxWidth: 'sm' | 'md' | 'lg'
  fullWidth?: boolean
  children: ReactNode
}) {
  const { t } = useTranslation()
  const titleId = useId()
  // What had the focus may be gone, such as a line that was taken out: then the key reaches no part of the dialog.
  useHotkeys('escape', () => document.activeElement === document.body && onClose(), { enabled: open }, [onClose])
  return (
    <Dialog open={open} onClose={onClose} fullWidth={fullWidth} maxWidth={maxWidth} aria-labelledby={titleId}>
      <DialogTitle id={titleId} sx={{ pr: 7 }}>
        {title}
        <IconButton
          aria-label={t('app.close')}
          onClick={onClose}
          sx={{ position: 'absolute', right: 8, top: 8, width: 48, height: 48 }}
        >
          <CloseIcon />
        </IconButton>
      </DialogTitle>
      {/* What is longer than the screen is scrolled by keys as well. */}
      <DialogContent tabIndex={0}>{children}</DialogContent>
    </Dialog>
  )
}
