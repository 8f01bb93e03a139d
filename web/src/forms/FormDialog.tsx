import { Box } from '@mui/material'
import type { ReactNode } from 'react'
import type { FieldValues } from 'react-hook-form'
import { SheetDialog } from '../pieces/SheetDialog.tsx'
import { FormFoot } from './FormFoot.tsx'
import { FormOf } from './FormOf.tsx'
import type { WriteForm } from './useWriteForm.ts'

/** A form over the place: closed by Escape or its cross, which writes nothing; sent by Enter or its button. */
export function FormDialog<Typed extends FieldValues>({
  form,
  title,
  go,
  ready = true,
  wide = false,
  dense = false,
  onClose,
  children,
}: {
  form: WriteForm<Typed>
  title: string
  /** What its button says: what is done. */
  go: string
  ready?: boolean
  wide?: boolean
  /** Many fields: each as low as it can be. */
  dense?: boolean
  onClose: () => void
  children: ReactNode
}) {
  return (
    <SheetDialog
      open
      onClose={onClose}
      title={title}
      maxWidth={wide ? 'md' : 'sm'}
      fullWidth
      foot={<FormFoot form={form} go={go} ready={ready} />}
      around={(content) => (
        <FormOf form={form} dense={dense} sx={{ display: 'flex', flexDirection: 'column', minHeight: 0 }}>
          {content}
        </FormOf>
      )}
    >
      <Box sx={{ display: 'grid', gap: 1, pt: 1 }}>{children}</Box>
    </SheetDialog>
  )
}
