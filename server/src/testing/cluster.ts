import { mkdtempSync, rmSync, chmodSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import type {} from 'vitest'
import type { TestProject } from 'vitest/node'
import { startCluster } from '../../../scripts/postgres/cluster.ts'

declare module 'vitest' {
  interface ProvidedContext {
    databaseUrl: string
  }
}

/** One throwaway cluster for all tests of the server. */
export default async function setup(project: TestProject): Promise<() => Promise<void>> {
  const folder = mkdtempSync(join(tmpdir(), 'pelrin-test-'))
  chmodSync(folder, 0o755)
  const cluster = await startCluster(folder, { throwaway: true })
  project.provide('databaseUrl', cluster.url)
  return async () => {
    await cluster.stop()
    rmSync(folder, { recursive: true, force: true })
  }
}
