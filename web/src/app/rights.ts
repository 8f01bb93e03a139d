import { matchPath } from 'react-router'
import { may, RIGHTS, type Right, type Role } from '@pelrin/contract'

/** What is done in each place, beyond looking: by the table the server holds to. */
const DONE_AT: readonly (readonly [string, Right])[] = [
  ['/new-bike', 'customers'],
  ['/bikes/:id/measure', 'record'],
  ['/bikes/:id/distance', 'distance'],
  ['/bikes/:id/parts', 'work'],
  ['/bikes/:id/job', 'record'],
  ['/bikes/:id/chains', 'work'],
  ['/bikes/:id/care', 'record'],
  ['/bikes/:id/mend', 'work'],
  ['/bikes/:id/other-wear', 'record'],
  ['/pot', 'record'],
  ['/diary', 'diary'],
  ['/messages', 'messages'],
  ['/catalogue/*', 'stock'],
  ['/orders', 'orders'],
  ['/gauges/*', 'instruments'],
  ['/studies/:id', 'record'],
  ['/house-rules', 'owner'],
  ['/first-day', 'owner'],
  ['/customers/:id', 'customers'],
]

/** Whose a place is to work in, where it is not this role's; null where it is, and for places one only looks at. */
export function othersPlace(role: Role, pathname: string): readonly Role[] | null {
  const right = DONE_AT.find(([path]) => matchPath(path, pathname))?.[1]
  return right === undefined || may(role, right) ? null : RIGHTS[right]
}
