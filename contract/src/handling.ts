import type { ChainHandling } from '@pelrin/core'
import * as v from 'valibot'

/** What the way of a chain off its bike and on again follows from. */
export const Handling = v.custom<ChainHandling>((value) => typeof value === 'object' && value !== null)
