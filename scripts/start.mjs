// What a fresh clone runs first. Plain JavaScript without packages, since none may be installed yet: it installs
// what is missing and hands over to start.ts.
import { spawn } from 'node:child_process'
import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { ensureInstalled, root } from './install.mjs'

if (process.argv.includes('--help')) {
  process.stdout.write(readFileSync(join(root, 'scripts/start-help.txt'), 'utf8'))
  process.exit(0)
}
ensureInstalled()

const child = spawn(process.execPath, ['--import', 'tsx', join(root, 'scripts/start.ts'), ...process.argv.slice(2)], {
  cwd: root,
  stdio: ['inherit', 'inherit', 'inherit', 'ipc'],
})
// Ctrl-C in a terminal reaches the child by itself too; it stops once, however often it is told.
process.on('SIGINT', () => child.kill('SIGINT'))
process.on('SIGTERM', () => child.kill('SIGTERM'))
process.on('SIGHUP', () => child.kill('SIGTERM'))
child.on('exit', (code, signal) => process.exit(code ?? (signal === null ? 0 : 1)))
