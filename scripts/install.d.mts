/** Where Pelrin lies. */
export const root: string
/** Whether what is installed in a folder is what its lock file says. */
export function installedIn(folder: string): boolean
