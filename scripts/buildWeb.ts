import { createHash } from 'node:crypto'
import { existsSync, readdirSync, readFileSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { say } from './plain.ts'

/** Everything the built web application is made from, as one number. */
function fingerprint(root: string): string {
  const hash = createHash('sha256')
  const take = (path: string): void => {
    for (const entry of readdirSync(path, { withFileTypes: true }).sort((a, b) => (a.name < b.name ? -1 : 1))) {
      if (['node_modules', 'dist', '.tsbuild'].includes(entry.name)) continue
      const file = join(path, entry.name)
      if (entry.isDirectory()) take(file)
      else hash.update(entry.name).update(readFileSync(file))
    }
  }
  for (const workspace of ['core', 'contract', 'web']) take(join(root, workspace))
  for (const file of ['package-lock.json', 'scripts/buildWeb.ts']) hash.update(readFileSync(join(root, file)))
  return hash.digest('hex')
}

const markIn = (root: string): string => join(root, 'web/dist/.made-from')

/** Whether the web application there is is of these very sources. */
export const webIsBuilt = (root: string): boolean =>
  existsSync(markIn(root)) && readFileSync(markIn(root), 'utf8') === fingerprint(root)

/** Builds the web application unless the one there is of these very sources. */
export async function buildWeb(root: string): Promise<void> {
  if (webIsBuilt(root)) return
  // Only here: it is as large as everything else together.
  const { build } = await import('vite')
  say('Building the web application …')
  // Whoever asks, be it a test: what is served is the libraries' production build, several times as fast as the other.
  const before = process.env['NODE_ENV']
  process.env['NODE_ENV'] = 'production'
  await build({ root: join(root, 'web'), logLevel: 'error' })
  if (before === undefined) delete process.env['NODE_ENV']
  else process.env['NODE_ENV'] = before
  writeFileSync(markIn(root), fingerprint(root))
}
