/** How the header of a table is remembered. */
export const headerKey = (header: readonly string[]): string => header.join('\u001f')
