/** Where a one-time link leads. Behind the hash: no server's log, and no address another site is told, has it. */
export const linkOf = (address: string, token: string): string => `${address}/welcome#${token}`
