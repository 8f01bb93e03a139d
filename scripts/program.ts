import { basename, extname, join, resolve } from 'node:path'

const root = join(import.meta.dirname, '..')
/** Whether this is a compiled program: then those it starts are too. */
const COMPILED = extname(import.meta.filename) === '.js'

/**
 * How Node runs a program of ours, by where its source lies from the root: compiled where this one is, else by the loader of TypeScript.
 *
 * @param source such as `server/src/main.ts`
 */
export function programOf(source: string): string[] {
  if (!COMPILED) return ['--import', 'tsx', resolve(root, source)]
  const workspace = source.split('/')[0] ?? ''
  return ['--enable-source-maps', join(root, workspace, '.built', `${basename(source, '.ts')}.js`)]
}
