import { Box, type SxProps } from '@mui/material'
import { useCallback, useMemo, useState, type ReactNode } from 'react'
import { FormProvider, type FieldValues } from 'react-hook-form'
import type { WriteForm } from './useWriteForm.ts'
import { WriteFormContext } from './WriteFormContext.ts'

/** The fields of a form that writes one thing, and Enter that sends it. */
export function FormOf<Typed extends FieldValues>({
  form,
  label,
  dense = false,
  sx,
  children,
}: {
  form: WriteForm<Typed>
  label?: string
  /** Many fields: each as low as it can be, with no room kept for what is said at it. */
  dense?: boolean
  sx?: SxProps
  children: ReactNode
}) {
  const { newer, submit } = form
  const [shown] = useState(() => new Set<string>())
  const show = useCallback(
    (name: string) => {
      shown.add(name)
      return () => void shown.delete(name)
    },
    [shown],
  )
  const around = useMemo(() => ({ newer, show, shown, dense }), [newer, show, shown, dense])
  return (
    <FormProvider {...form.fields}>
      <WriteFormContext value={around}>
        <Box
          component="form"
          noValidate
          aria-label={label}
          onSubmit={(event) => {
            event.preventDefault()
            submit()
          }}
          {...(sx ? { sx } : {})}
        >
          {children}
        </Box>
      </WriteFormContext>
    </FormProvider>
  )
}
