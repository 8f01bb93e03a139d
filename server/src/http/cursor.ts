import * as v from 'valibot'
import { ProblemError } from '../problems/problem.ts'

/** A place in a list, as it is handed out and comes back. */
export const encodeCursor = (at: readonly unknown[]): string => Buffer.from(JSON.stringify(at)).toString('base64url')

/** @throws ProblemError 400 for what was not handed out */
export function decodeCursor<S extends v.GenericSchema>(schema: S, text: string): v.InferOutput<S> {
  try {
    return v.parse(schema, JSON.parse(Buffer.from(text, 'base64url').toString()))
  } catch {
    throw new ProblemError(400, 'cursor-malformed')
  }
}
