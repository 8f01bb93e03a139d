/** The places there are, in the order of the band. Those of a bike need one to be chosen. */
export const PLACES = [
  { name: 'stand', path: () => '/' },
  { name: 'rack', path: () => '/rack' },
  { name: 'bike', path: (bikeId: string | undefined) => (bikeId === undefined ? null : `/bikes/${bikeId}`) },
  { name: 'measure', path: (bikeId: string | undefined) => (bikeId === undefined ? null : `/bikes/${bikeId}/measure`) },
  {
    name: 'parts',
    path: (bikeId: string | undefined) => (bikeId === undefined ? '/catalogue' : `/bikes/${bikeId}/parts`),
  },
  { name: 'job', path: (bikeId: string | undefined) => (bikeId === undefined ? null : `/bikes/${bikeId}/job`) },
  { name: 'pot', path: () => '/pot' },
  { name: 'diary', path: () => '/diary' },
  { name: 'gauges', path: () => '/gauges' },
  { name: 'insight', path: () => '/insight' },
  { name: 'rules', path: () => '/house-rules' },
] as const

export type PlaceName = (typeof PLACES)[number]['name']

/** Which place an address is in. */
export function placeOf(pathname: string): PlaceName | null {
  if (pathname === '/' || pathname === '/first-day') return 'stand'
  if (pathname === '/rack' || pathname === '/tags' || pathname === '/new-bike' || pathname.startsWith('/customers/'))
    return 'rack'
  if (pathname === '/pot') return 'pot'
  if (pathname === '/diary' || pathname === '/messages') return 'diary'
  if (pathname === '/house-rules') return 'rules'
  if (pathname === '/insight') return 'insight'
  if (/^\/(gauges|rule-chart|studies)(\/|$)/.test(pathname)) return 'gauges'
  if (/^\/bikes\/[^/]+\/measure$/.test(pathname)) return 'measure'
  if (/^\/bikes\/[^/]+\/parts$|^\/(catalogue|orders)(\/|$)/.test(pathname)) return 'parts'
  if (/^\/bikes\/[^/]+\/job$/.test(pathname)) return 'job'
  return /^\/bikes\/[^/]+(\/(distance|chains|care|other-wear|mend|sheets\/[^/]+))?$|^\/(chains|joints)\//.test(pathname)
    ? 'bike'
    : null
}
