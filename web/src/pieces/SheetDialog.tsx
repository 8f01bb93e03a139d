import { Dialog, DialogActions, DialogContent, DialogTitle, IconButton } from '@mui/material'
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
  foot,
  around = (content) => content,
  children,
}: {
  open: boolean
  onClose: () => void
  title: string
  maxWidth: 'sm' | 'md' | 'lg'
  fullWidth?: boolean
  /** What stays in sight below, however long the rest is. */
  foot?: ReactNode
  /** What is put round content and foot, such as a form. */
  around?: (content: ReactNode) => ReactNode
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
      {around(
        <>
          {/* What is longer than the screen is scrolled by keys as well. */}
          <DialogContent tabIndex={0} sx={{ pt: 0, '&:focus-visible': { outlineOffset: '-3px !important' } }}>
            {children}
          </DialogContent>
          {foot !== undefined && <DialogActions sx={{ px: 3, pb: 2.5 }}>{foot}</DialogActions>}
        </>,
      )}
    </Dialog>
  )
}
