import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import type { TableMapping } from '@pelrin/contract'
import * as v from 'valibot'
import { v7 } from 'uuid'
import { ProblemError, sendForm } from './client.ts'

/** What every look at a table tells. */
interface Looked {
  readonly mapping: TableMapping
  readonly fingerprint: string
}

/**
 * A table that comes in from a file: looked at first, as often as its columns are said otherwise, then taken, all or the chosen rows.
 * Sent again after a lost answer, it is taken once.
 *
 * @param path below the API: `/preview` looks
 * @param take where it is taken
 */
export function useTable<Seen extends Looked, Done>(
  path: { readonly look: string; readonly take: string },
  schemas: { readonly seen: v.GenericSchema<unknown, Seen>; readonly done: v.GenericSchema<unknown, Done> },
) {
  const { t } = useTranslation()
  const [file, setFile] = useState<File | null>(null)
  const [seen, setSeen] = useState<Seen | null>(null)
  const [skip, setSkip] = useState<ReadonlySet<number>>(new Set())
  /** What was told beside the file and what its columns mean. */
  const [said, setSaid] = useState<Readonly<Record<string, string>>>({})
  const [running, setRunning] = useState<AbortController | null>(null)
  const [wrong, setWrong] = useState<string | null>(null)
  const [key, setKey] = useState(() => v7())
  const run = async <T>(job: (signal: AbortSignal) => Promise<T>): Promise<T | null> => {
    const stop = new AbortController()
    setRunning(stop)
    setWrong(null)
    try {
      return await job(stop.signal)
    } catch (error) {
      if (!stop.signal.aborted) setWrong(error instanceof ProblemError ? error.problem.detail : t('app.notSaved'))
      return null
    } finally {
      setRunning(null)
    }
  }
  const look = async (
    from: File,
    mapping: TableMapping | null,
    told: Readonly<Record<string, string>> = {},
  ): Promise<Seen | null> => {
    setFile(from)
    setSaid(told)
    const fields = { ...told, ...(mapping === null ? {} : { mapping: JSON.stringify(mapping) }) }
    const answer = await run((signal) => sendForm(path.look, [from], { fields, signal }))
    const read = answer === null ? null : v.parse(schemas.seen, answer)
    setSeen(read)
    setSkip(new Set())
    setKey(v7())
    return read
  }
  const take = async (): Promise<Done | null> => {
    if (!file || !seen) return null
    const { mapping, fingerprint } = seen
    const fields = { ...said, mapping: JSON.stringify(mapping), skip: JSON.stringify([...skip]), fingerprint }
    const answer = await run((signal) => sendForm(path.take, [file], { key, fields, signal }))
    return answer === null ? null : v.parse(schemas.done, answer)
  }
  return {
    file,
    seen,
    said,
    skip,
    wrong,
    busy: running !== null,
    look,
    take,
    stop: () => running?.abort(),
    leaveOut: (row: number, out: boolean) => {
      const next = new Set(skip)
      if (out) next.add(row)
      else next.delete(row)
      setSkip(next)
    },
  }
}
