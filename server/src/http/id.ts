import { Id } from '@pelrin/contract'
import * as v from 'valibot'

/** Whether a text is an id, for addresses that no schema of the contract checks. */
export const isId = (text: string): boolean => v.is(Id, text)
