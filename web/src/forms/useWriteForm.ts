import { fieldProblems } from '@pelrin/contract'
import { useRef, useState } from 'react'
import {
  get,
  set,
  useForm,
  type DefaultValues,
  type FieldErrors,
  type FieldValues,
  type UseFormReturn,
} from 'react-hook-form'
import { useTranslation } from 'react-i18next'
import type * as v from 'valibot'
import { v7 } from 'uuid'
import { useWrite, type WriteOptions } from '../api/useWrite.ts'
import { problemText } from '../messages/said.ts'

/** What a write is sent with beside its body. */
export interface Sending {
  /** Names what is made: the same until it was taken, so that what nobody answered goes again as the same. */
  readonly id: string
  /** The version that is being changed: of what the form began with, or of what somebody else has made of it since. */
  readonly version: number
}

/** What somebody else has made of it. */
interface Newer<Typed> {
  readonly version: number
  readonly typed: Partial<Typed>
}

export interface WriteFormParts<Typed extends FieldValues, Body, Answer> extends WriteOptions {
  /** What the endpoint takes: refuses what is typed by what the server refuses it by. */
  readonly schema: v.GenericSchema | undefined
  /** What the fields begin with, each as it is typed. */
  readonly start: DefaultValues<Typed>
  /** What is typed, as the endpoint takes it: a number that is none is NaN. */
  readonly read: (typed: Typed, id: string) => Body
  readonly send: (body: Body, sending: Sending, typed: Typed) => Promise<Answer>
  /** It was taken. */
  readonly done: (answer: Answer, typed: Typed) => void
  /** The version of what is changed. */
  readonly version?: number
  /** What somebody else wrote meanwhile: its version, and as these fields would have it. */
  readonly newerOf?: (current: never) => Newer<Typed>
  /** The field at which a path of the body is typed, where it is not its own. */
  readonly fieldOf?: (path: string) => string
  /** A problem the place itself answers, such as a question back: true where it did. */
  readonly asked?: (code: string) => boolean
}

export interface WriteForm<Typed extends FieldValues> {
  readonly fields: UseFormReturn<Typed>
  /** Whether whoever is here may write it at all: to who may not, no button to send it is offered. */
  readonly may: boolean
  readonly busy: boolean
  readonly submit: () => void
  /** What somebody else has written of these fields since they were opened; null: nobody has. */
  readonly newer: Partial<Typed> | null
  /** Whether it was written at least once. */
  readonly taken: boolean
  /** That nobody answered, as a sentence. */
  readonly away: string | undefined
}

/**
 * A form that writes one thing: holds what is typed, refuses it field by field as the server would, sends it, and sets what came back
 * at its fields. Nothing typed is lost by a refusal, by being away, or by somebody else's having been faster.
 */
export function useWriteForm<Typed extends FieldValues, Body, Answer>({
  schema,
  start,
  read,
  send,
  done,
  version = 0,
  newerOf,
  fieldOf = (path) => path,
  asked,
  access,
  stale,
  later,
}: WriteFormParts<Typed, Body, Answer>): WriteForm<Typed> {
  const { t } = useTranslation()
  const [id, setId] = useState(() => v7())
  const [taken, setTaken] = useState(false)
  const [newer, setNewer] = useState<Newer<Typed> | null>(null)
  const { may, busy, wrong, write } = useWrite({ access, ...(stale ? { stale } : {}), ...(later ? { later } : {}) })
  const fields = useForm<Typed>({
    defaultValues: start,
    resolver: (typed) => {
      const errors: FieldErrors = {}
      const setAt = (field: string, code: string): void => {
        // Nothing typed is no wrong number: it is one that is missing.
        const said = code === 'number-malformed' && get(typed, field) === '' ? 'number-missing' : code
        set(errors, field, { type: said, message: problemText(t, said) })
      }
      for (const { path, code } of schema ? fieldProblems(schema, read(typed, id)) : [])
        setAt(path === '' ? 'root' : fieldOf(path), code)
      return Object.keys(errors).length === 0 ? { values: typed, errors: {} } : { values: {}, errors: errors as never }
    },
  })
  const submit = fields.handleSubmit(async (typed) => {
    const sending = { id, version: newer?.version ?? version }
    const answer = await write(
      async () => ({ is: await send(read(typed, id), sending, typed) }),
      ({ status, code, detail, current, fields: at = [] }) => {
        if (status === 412 && newerOf) {
          const now = newerOf(current as never)
          setNewer(now)
          // What was not touched here follows; what was stays, with theirs beside.
          fields.reset({ ...fields.getValues(), ...now.typed }, { keepDirtyValues: true, keepDirty: true })
          return true
        }
        if (asked?.(at[0]?.code ?? code) === true) return true
        for (const [i, one] of at.entries())
          fields.setError(fieldOf(one.path) as never, { type: one.code, message: one.detail }, { shouldFocus: i === 0 })
        if (at.length === 0) fields.setError('root', { type: code, message: detail })
        return true
      },
    )
    if (!answer) return
    setId(v7())
    setTaken(true)
    setNewer(null)
    done(answer.is, typed)
  })
  /** Enter may be pressed again before it is through. */
  const underWay = useRef(false)
  const once = async (): Promise<void> => {
    if (underWay.current) return
    underWay.current = true
    try {
      await submit()
    } finally {
      underWay.current = false
    }
  }
  return { fields, may, busy, submit: () => void once(), taken, newer: newer?.typed ?? null, away: wrong?.sentence }
}
