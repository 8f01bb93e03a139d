import { useMutation, useQueryClient, type QueryKey } from '@tanstack/react-query'
import { useContext, useState } from 'react'
import { useTranslation } from 'react-i18next'
import { may, type Endpoint } from '@pelrin/contract'
import { RoleContext } from '../keys/role.ts'
import { ProblemError } from './client.ts'

/** What stood in the way of a write: as a whole, and a sentence for each field it concerns. */
export interface Wrong {
  readonly code: string | null
  readonly sentence: string
  readonly fields: Readonly<Record<string, string>>
}

/** Who may write, and what it makes stale. */
export interface WriteOptions {
  /** Of the endpoint that is written to: who may not is not offered it. */
  readonly access: Endpoint['access']
  /** What is asked for anew before the next key acts: by what it is called in `keys`. */
  readonly stale?: readonly QueryKey[]
  /** What is asked for anew as well, and nobody waits for. */
  readonly later?: readonly QueryKey[]
  /** Writes of one name go one after the other, each to what the one before left: nothing pressed meanwhile is lost. */
  readonly inOrder?: string
}

/**
 * The one way to write to the server: whether one is under way, what stood in the way of the last as sentences at their fields, and what
 * is asked for anew after it. What was typed stays with whoever typed it.
 */
export function useWrite({ access, stale = [], later = [], inOrder }: WriteOptions) {
  const role = useContext(RoleContext)
  const { t } = useTranslation()
  const client = useQueryClient()
  const [found, setFound] = useState<Wrong | null>(null)
  const anew = async (): Promise<void> => {
    for (const queryKey of later) void client.invalidateQueries({ queryKey })
    await Promise.all(stale.map((queryKey) => client.invalidateQueries({ queryKey })))
  }
  const mutation = useMutation<unknown, unknown, () => Promise<unknown>>({
    mutationFn: (job) => job(),
    // Whoever is away is told so at once: nothing waits in silence for a connection.
    networkMode: 'always',
    ...(inOrder === undefined ? {} : { scope: { id: inOrder } }),
    // A field that was wrong says nothing new of anything: who mends it goes on at once.
    onSettled: (_, error) => (isOfFields(error) ? undefined : anew()),
  })
  const wrong = found ?? (mutation.error === null ? null : asWrong(mutation.error, t('app.notSaved')))
  /**
   * @param refused is given what stood in the way first; where it returns true, that is told somewhere else than in `wrong`
   * @returns what was answered; null where it was refused
   */
  const write = async <T>(
    job: () => Promise<T>,
    refused?: (problem: ProblemError['problem']) => boolean,
  ): Promise<T | null> => {
    setFound(null)
    try {
      return (await mutation.mutateAsync(job)) as T
    } catch (error) {
      if (error instanceof ProblemError && refused?.(error.problem) === true) mutation.reset()
      return null
    }
  }
  /** The sentence of a field; of '' that of a write refused as a whole. Undefined where nothing is wrong there. */
  const at = (path: string): string | undefined =>
    path === '' && wrong && Object.keys(wrong.fields).length === 0 ? wrong.sentence : wrong?.fields[path]
  return {
    /** Whether whoever is here may write this at all. */
    may: access === 'anyone' || role === null || may(role, access),
    busy: mutation.isPending,
    wrong,
    /** What a form finds by itself before anything is sent; null: it is being mended. */
    setWrong: (next: Wrong | null): void => {
      setFound(next)
      if (next === null) mutation.reset()
    },
    write,
    at,
    /** What a field shows of what stood in the way: its own sentence, or room for one. */
    field: (path: string) => ({ error: at(path) !== undefined, helperText: at(path) ?? ' ' }),
  }
}

/** What a form found at its fields, as what stood in the way. */
export const wrongAt = (fields: Readonly<Record<string, string>>): Wrong => ({
  code: null,
  sentence: Object.values(fields)[0] ?? '',
  fields,
})

const isOfFields = (error: unknown): boolean => error instanceof ProblemError && error.problem.status === 422

function asWrong(error: unknown, offline: string): Wrong {
  if (!(error instanceof ProblemError)) return { code: null, sentence: offline, fields: {} }
  const { fields = [], code } = error.problem
  return {
    code: fields[0]?.code ?? code,
    sentence: fields[0]?.detail ?? error.message,
    fields: Object.fromEntries(fields.map(({ path, detail }) => [path, detail])),
  }
}
