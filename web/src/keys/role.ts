import { createContext } from 'react'
import type { Role } from '@pelrin/contract'

/** The role of whoever is at this device; null outside of the shell, where there is nobody to hold to one. */
export const RoleContext = createContext<Role | null>(null)
