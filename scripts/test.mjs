// `npm test`: installs what is missing and hands over to test.ts.
import { spawnSync } from 'node:child_process'
import { join } from 'node:path'
import { ensureInstalled, root } from './install.mjs'

ensureInstalled()
const { status } = spawnSync(
  process.execPath,
  ['--import', 'tsx', join(root, 'scripts/test.ts'), ...process.argv.slice(2)],
  { cwd: root, stdio: 'inherit' },
)
process.exit(status ?? 1)
