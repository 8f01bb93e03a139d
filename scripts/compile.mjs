// Compiles what runs in production, once for each state of the sources: plain JavaScript, since it is what start.mjs calls before anything else
// runs. A program lies beside its workspace (`server/.built/main.js`) and finds packages and files as its sources do.
import { createHash } from 'node:crypto'
import { existsSync, mkdirSync, readdirSync, readFileSync, renameSync, writeFileSync } from 'node:fs'
import { basename, dirname, join, relative, sep } from 'node:path'

const WORKSPACES = ['core', 'contract', 'drawn', 'server', 'standins', 'scripts']
/** Programs and modules of threads, by their workspace. */
const PROGRAMS = {
  server: [
    'src/main.ts',
    'src/forecast/forecastThread.ts',
    'src/forecast/learnFrom.ts',
    'src/imports/readThread.ts',
    'src/catalogue/tableThread.ts',
    'src/sheets/printThread.ts',
  ],
  standins: ['all.ts'],
  scripts: ['start.ts', 'prepareNow.ts'],
}

/** Everything the programs are made from, and where they lie, as one number. @param {string} root */
function fingerprint(root) {
  const hash = createHash('sha256').update(root).update(process.version)
  /** @param {string} path */
  const take = (path) => {
    for (const entry of readdirSync(path, { withFileTypes: true }).sort((a, b) => (a.name < b.name ? -1 : 1))) {
      const file = join(path, entry.name)
      if (entry.isDirectory()) {
        if (!['node_modules', '.built', 'landed'].includes(entry.name)) take(file)
      } else if (/\.(ts|mjs|json)$/.test(entry.name) && !/\.test\.ts$/.test(entry.name))
        hash.update(relative(root, file)).update(readFileSync(file))
    }
  }
  for (const workspace of WORKSPACES) take(join(root, workspace))
  return hash.update(readFileSync(join(root, 'package-lock.json'))).digest('hex')
}

/** What the workspaces export, by the names they are imported under. @param {string} root */
function exported(root) {
  const names = new Map()
  for (const workspace of WORKSPACES.filter((one) => existsSync(join(root, one, 'package.json')))) {
    const { name, exports = {} } = JSON.parse(readFileSync(join(root, workspace, 'package.json'), 'utf8'))
    for (const [path, file] of Object.entries(exports)) names.set(join(name, path), join(root, workspace, file))
  }
  return names
}

/**
 * Of ours everything is taken into the program; packages stay what they are, but for those a workspace has in a version of its own, which the program
 * of another would not find. Files beside a module are found where its source lies.
 *
 * @param {string} root
 * @param {Map<string, string>} names
 * @returns {import('esbuild').Plugin}
 */
const ours = (root, names) => ({
  name: 'ours',
  setup({ onResolve, onLoad }) {
    onResolve({ filter: /^[^./]/ }, ({ path, importer }) => {
      if (names.has(path)) return { path: names.get(path) }
      const workspace = relative(root, importer).split(sep)[0] ?? ''
      const name = path.split('/').slice(0, path.startsWith('@') ? 2 : 1)
      return existsSync(join(root, workspace, 'node_modules', ...name)) ? undefined : { path, external: true }
    })
    onLoad({ filter: /\.ts$/ }, ({ path }) => ({
      contents: readFileSync(path, 'utf8').replaceAll('import.meta.dirname', () => JSON.stringify(dirname(path))),
      loader: 'ts',
    }))
  },
})

/**
 * Writes a file whole or not at all: two starts may compile at once, and a program be read meanwhile.
 *
 * @param {string} path
 * @param {string | Uint8Array} contents
 */
function put(path, contents) {
  const beside = `${path}.${process.pid}`
  writeFileSync(beside, contents)
  renameSync(beside, path)
}

/** Compiles the programs unless those there are of these very sources. @param {string} root */
export async function compile(root) {
  const mark = join(root, 'server/.built/.made-from')
  const now = fingerprint(root)
  if (existsSync(mark) && readFileSync(mark, 'utf8') === now) return
  // Only where it is needed: whoever stays to watch stays small.
  const { build } = await import('esbuild')
  const plugins = [ours(root, exported(root))]
  for (const [workspace, programs] of Object.entries(PROGRAMS)) {
    const outdir = join(root, workspace, '.built')
    const { outputFiles } = await build({
      entryPoints: programs.map((program) => ({
        in: join(root, workspace, program),
        out: basename(program, '.ts'),
      })),
      ...{ outdir, plugins, bundle: true, platform: 'node', format: 'esm', target: 'node20', logLevel: 'error' },
      ...{ sourcemap: 'linked', legalComments: 'none', write: false },
    })
    mkdirSync(outdir, { recursive: true })
    for (const { path, contents } of outputFiles) put(path, contents)
    // What is compiled are modules, whatever stands further up.
    put(join(outdir, 'package.json'), '{ "type": "module" }\n')
  }
  put(mark, now)
}
