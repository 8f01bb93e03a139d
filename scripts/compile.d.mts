/** Compiles the programs unless those there are of these very sources. */
export function compile(root: string): Promise<void>
