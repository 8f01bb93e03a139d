import { useEffect } from 'react'
import { useWatch, type FieldValues } from 'react-hook-form'
import { drafts } from '../drafts/drafts.ts'
import type { WriteForm } from './useWriteForm.ts'

/**
 * Keeps what is typed in a form on the device, over a reload and a dead battery: `drafts.read` gives it back. What was taken is no
 * longer kept; the place removes it.
 */
export function useFormDraft<Typed extends FieldValues>(form: WriteForm<Typed>, key: string): void {
  const typed = useWatch({ control: form.fields.control })
  const { isDirty } = form.fields.formState
  const { taken } = form
  useEffect(() => {
    if (isDirty && !taken) drafts.put(key, typed)
  }, [typed, isDirty, taken, key])
}
