import { spawnSync } from 'node:child_process'
import { readFileSync } from 'node:fs'

/** What judges: changed in one place at a time, to see whether a test notices. */
const JUDGES = ['limits', 'readings', 'forecast', 'care', 'length', 'parts', 'standing', 'distance'] as const

interface Report {
  readonly files: Readonly<
    Record<
      string,
      {
        readonly source: string
        readonly mutants: readonly {
          readonly status: string
          readonly replacement: string
          readonly location: Readonly<Record<'start' | 'end', { readonly line: number; readonly column: number }>>
        }[]
      }
    >
  >
}

/** The score of a capability, and every change no test noticed. */
function told(capability: string): { killed: number; all: number; survived: string[] } {
  const report = JSON.parse(readFileSync(`test-results/mutants-${capability}.json`, 'utf8')) as Report
  let [killed, all] = [0, 0]
  const survived: string[] = []
  for (const [file, { source, mutants }] of Object.entries(report.files)) {
    const lines = source.split('\n')
    for (const { status, replacement, location } of mutants) {
      if (status === 'Killed' || status === 'Timeout') killed++
      else if (status !== 'Survived' && status !== 'NoCoverage') continue
      all++
      const { start, end } = location
      const was = (lines[start.line - 1] ?? '').slice(
        start.column - 1,
        start.line === end.line ? end.column - 1 : undefined,
      )
      if (status === 'Survived' || status === 'NoCoverage')
        survived.push(`  ${file}:${start.line}  ${was.slice(0, 60)}  ->  ${replacement.split('\n')[0]!.slice(0, 60)}`)
    }
  }
  return { killed, all, survived }
}

const asked = process.argv.slice(2)
for (const capability of asked.length > 0 ? asked : JUDGES) {
  const run = spawnSync('npx', ['stryker', 'run'], {
    env: { ...process.env, PELRIN_MUTANTS: capability },
    stdio: ['ignore', 'ignore', 'inherit'],
  })
  if (run.status !== 0) throw new Error(`no mutants of ${capability}: do its tests pass?`)
  const { killed, all, survived } = told(capability)
  process.stdout.write(`${capability}: ${((100 * killed) / all).toFixed(1)} % of ${all} changes were noticed\n`)
  for (const one of survived) process.stdout.write(`${one}\n`)
}
