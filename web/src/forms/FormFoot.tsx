import { Button, Stack } from '@mui/material'
import { useContext } from 'react'
import { useFormState, type FieldErrors, type FieldValues } from 'react-hook-form'
import { useTranslation } from 'react-i18next'
import { NotYours } from './NotYours.tsx'
import { Refused } from './Refused.tsx'
import type { WriteForm } from './useWriteForm.ts'
import { sentenceAt, WriteFormContext } from './WriteFormContext.ts'

/** What stands in the way and is at no field of the screen, and the button that sends. */
export function FormFoot<Typed extends FieldValues>({
  form,
  go,
  ready = true,
}: {
  form: WriteForm<Typed>
  go: string
  /** False while what is sent is not yet chosen. */
  ready?: boolean
}) {
  return (
    <Stack direction="row" sx={{ justifyContent: 'flex-end', alignItems: 'center', flexWrap: 'wrap', gap: 2 }}>
      <RefusedElsewhere form={form} />
      {form.may ? (
        <Button type="submit" variant="contained" disabled={form.busy || !ready} sx={{ px: 4 }}>
          {go}
        </Button>
      ) : (
        <NotYours />
      )}
    </Stack>
  )
}

/** What stands in the way of a form and is at no field of the screen. */
export function RefusedElsewhere<Typed extends FieldValues>({ form }: { form: WriteForm<Typed> }) {
  const { t } = useTranslation()
  const { errors } = useFormState({ control: form.fields.control })
  const { shown } = useContext(WriteFormContext)
  return <Refused>{form.newer === null ? (form.away ?? elsewhere(errors, shown)) : t('form.newer')}</Refused>
}

/** The first sentence that no field shows. */
function elsewhere(errors: FieldErrors, shown: ReadonlySet<string>): string | undefined {
  const covered = (path: string): boolean => [...shown].some((name) => name === path || path.startsWith(`${name}.`))
  const paths = (at: unknown, path: string): string[] =>
    typeof at !== 'object' || at === null || typeof (at as { message?: unknown }).message === 'string'
      ? [path]
      : Object.entries(at).flatMap(([key, below]) => paths(below, path === '' ? key : `${path}.${key}`))
  const path = paths(errors, '').find((one) => one !== '' && !covered(one))
  return path === undefined ? undefined : sentenceAt(errors, path)
}
