import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { installedIn } from './install.mjs'

let folder: string
beforeAll(() => void (folder = mkdtempSync(join(tmpdir(), 'pelrin-install-'))))
afterAll(() => rmSync(folder, { recursive: true, force: true }))

type Packages = Readonly<Record<string, { version?: string; link?: boolean; optional?: boolean }>>
const write = (file: string, packages: Packages): void =>
  writeFileSync(join(folder, file), JSON.stringify({ packages }))
const locked: Packages = {
  '': { version: '0.1.0' },
  core: { version: '0.1.0' },
  'node_modules/@pelrin/core': { link: true },
  'node_modules/koa': { version: '3.3.0' },
  'node_modules/other-system': { version: '1.0.0', optional: true },
}

describe('packages', () => {
  it('are missing on a fresh clone', () => {
    write('package-lock.json', locked)
    expect(installedIn(folder)).toBe(false)
  })
  it('are those of the lock file, but for what only other systems want', () => {
    mkdirSync(join(folder, 'node_modules'))
    write('node_modules/.package-lock.json', { 'node_modules/koa': { version: '3.3.0' } })
    expect(installedIn(folder)).toBe(true)
  })
  it('are not once a new version came with a lock file of its own', () => {
    write('package-lock.json', { ...locked, 'node_modules/koa': { version: '3.4.0' } })
    expect(installedIn(folder)).toBe(false)
    write('package-lock.json', { ...locked, 'node_modules/escape-html': { version: '1.0.3' } })
    expect(installedIn(folder)).toBe(false)
  })
})
