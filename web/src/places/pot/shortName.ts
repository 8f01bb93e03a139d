import type { PotChainNow } from '@pelrin/contract'

type Named = Pick<PotChainNow, 'chain' | 'bike'>

/** What tells a chain from its twins: what stands behind the last comma of its name; all of it where there is none. */
const ownPart = ({ chain }: Named): string => chain.split(', ').at(-1)!

/** Whose chain it is, in a few words. */
export const shortName = (named: Named): string =>
  named.bike === null
    ? named.chain
    : named.chain.includes(', ')
      ? `${named.bike.customer}, ${ownPart(named)}`
      : named.bike.customer

/** Which chain of which bike. */
export const ofBike = (named: Named): string =>
  named.bike === null ? ownPart(named) : `${named.bike.label}, ${ownPart(named)}`
