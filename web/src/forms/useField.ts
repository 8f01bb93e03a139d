import { useContext, useEffect } from 'react'
import { get, useController, type RefCallBack } from 'react-hook-form'
import { sentenceAt, WriteFormContext } from './WriteFormContext.ts'

interface Look {
  readonly error: boolean
  readonly helperText: string | undefined
  readonly size: 'small' | 'medium'
}

/** A field of the form it stands in. */
export interface Field<T> {
  readonly value: T
  readonly onChange: (value: T) => void
  readonly onBlur: () => void
  readonly ref: RefCallBack
  /** What stands in the way here, as a sentence. */
  readonly wrong: string | undefined
  /** How a field of the form looks, with what is to be said at it. */
  readonly look: (said: string | undefined) => Look
  /** What somebody else has made of it meanwhile; undefined where nobody has. */
  readonly newer: T | undefined
}

/** A field by its name: what is typed in it, and what is to be said at it. */
export function useField<T>(name: string): Field<T> {
  const { field, formState } = useController({ name })
  const { newer, show, dense } = useContext(WriteFormContext)
  useEffect(() => show(name), [name, show])
  const theirs: unknown = newer === null ? undefined : get(newer, name)
  const wrong = sentenceAt(formState.errors, name)
  return {
    value: field.value as T,
    onChange: field.onChange,
    onBlur: field.onBlur,
    ref: field.ref,
    wrong,
    newer: theirs as T | undefined,
    look: (said) => ({
      error: wrong !== undefined,
      helperText: wrong ?? said ?? (dense ? undefined : ' '),
      size: dense ? 'small' : 'medium',
    }),
  }
}
