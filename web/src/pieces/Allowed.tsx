import type { ReactNode } from 'react'
import type { Right } from '@pelrin/contract'
import { useMay } from '../keys/useCommands.ts'

/** What is offered only to who may do it. */
export function Allowed({ right, children }: { right: Right; children: ReactNode }) {
  return useMay()({ right }) ? children : null
}
