// What a fresh clone runs first. Plain JavaScript without packages, since none may be installed yet: it installs
// what is missing, hands over to start.ts, and starts that again should something end it.
import { spawn } from 'node:child_process'
import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { ensureInstalled, root } from './install.mjs'
import { Restarts } from './supervise/restarts.mjs'

if (process.argv.includes('--help')) {
  process.stdout.write(readFileSync(join(root, 'scripts/start-help.txt'), 'utf8'))
  process.exit(0)
}
ensureInstalled()
// Whoever works on it has the sources themselves run, and again whenever they change.
const dev = process.argv.includes('--dev')
if (!dev) {
  // Not before: on a fresh machine it has only just been installed.
  const { compile } = await import('./compile.mjs')
  await compile(root)
}
const program = dev
  ? ['--import', 'tsx', join(root, 'scripts/start.ts')]
  : ['--enable-source-maps', join(root, 'scripts/.built/start.js')]

const restarts = new Restarts()
let stopping = false
let child = begin(false)

/** @param {boolean} again whether it is begun after something ended it: what it left may still be on its way out */
function begin(again) {
  const begun = spawn(process.execPath, [...program, ...process.argv.slice(2)], {
    cwd: root,
    stdio: ['inherit', 'inherit', 'inherit', 'ipc'],
    env: { ...process.env, ...(again ? { PELRIN_BEGUN_AGAIN: 'yes' } : {}) },
  })
  begun.on('exit', (code, signal) => {
    // What ends with a code has said why. A signal nobody sent through us is a kill, or a crash.
    if (signal === null || stopping) process.exit(code ?? 0)
    const wait = restarts.next(Date.now())
    if (wait === null) {
      process.stderr.write('Pelrin was ended ten times within a minute and stays down.\n')
      process.exit(1)
    }
    process.stderr.write(`Pelrin was ended (${signal}); starting it again.\n`)
    setTimeout(() => (child = begin(true)), wait)
  })
  return begun
}

// Ctrl-C in a terminal reaches the child by itself too; it stops once, however often it is told.
function pass(signal) {
  // Asked again: whoever asks does not want to wait.
  child.kill(stopping ? 'SIGUSR2' : signal)
  stopping = true
}
process.on('SIGINT', () => pass('SIGINT'))
process.on('SIGTERM', () => pass('SIGTERM'))
process.on('SIGHUP', () => pass('SIGTERM'))
