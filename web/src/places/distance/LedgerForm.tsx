import { Box, Button } from '@mui/material'
import type { ReactNode } from 'react'
import type { FieldValues } from 'react-hook-form'
import { useTranslation } from 'react-i18next'
import { RefusedElsewhere } from '../../forms/FormFoot.tsx'
import { FormOf } from '../../forms/FormOf.tsx'
import type { WriteForm } from '../../forms/useWriteForm.ts'

/** Fields of one thing to write down, in a row; Enter sends them. */
export function LedgerForm<Typed extends FieldValues>({
  form,
  goes = true,
  children,
}: {
  form: WriteForm<Typed>
  /** False while something else is to be answered first. */
  goes?: boolean
  children: ReactNode
}) {
  const { t } = useTranslation()
  return (
    <FormOf form={form} sx={{ display: 'flex', gap: 1.25, flexWrap: 'wrap', alignItems: 'flex-start' }}>
      {children}
      {goes && (
        <Button type="submit" variant="contained" disabled={form.busy} sx={{ height: 56 }}>
          {t('distanceOf.add')}
        </Button>
      )}
      <Box sx={{ width: '100%' }}>
        <RefusedElsewhere form={form} />
      </Box>
    </FormOf>
  )
}
