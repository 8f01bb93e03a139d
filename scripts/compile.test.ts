import { readFileSync, statSync } from 'node:fs'
import { join } from 'node:path'
import { beforeAll, describe, expect, it } from 'vitest'
import { compile } from './compile.mjs'

const root = join(import.meta.dirname, '..')
const PROGRAMS = ['server/.built/main.js', 'scripts/.built/start.js', 'standins/.built/all.js']
const read = (file: string): string => readFileSync(join(root, file), 'utf8')

describe('what runs in production', () => {
  beforeAll(() => compile(root))
  it('is plain JavaScript: it loads no transpiler, and nothing of TypeScript', () => {
    for (const program of PROGRAMS) expect(read(program), program).not.toMatch(/from ["'](tsx|[^"']*\.ts)["']/)
  })
  it('leads back to its sources', () => {
    const { sources } = JSON.parse(read('server/.built/main.js.map')) as { sources: string[] }
    expect(sources).toContain('../src/app.ts')
    expect(sources.some((source) => source.includes('core/src/'))).toBe(true)
    expect(read('server/.built/main.js')).toMatch(/sourceMappingURL=main\.js\.map\s*$/)
  })
  it('is compiled once for each state of the sources', async () => {
    const before = PROGRAMS.map((program) => statSync(join(root, program)).mtimeMs)
    await compile(root)
    expect(PROGRAMS.map((program) => statSync(join(root, program)).mtimeMs)).toEqual(before)
  })
})
