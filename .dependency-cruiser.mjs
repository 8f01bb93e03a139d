const from = (path, rest = {}) => ({ path, ...rest })
const tests = '\\.test(ing)?\\.tsx?$|/testing/'

/** @type {import('dependency-cruiser').IConfiguration} */
export default {
  forbidden: [
    { name: 'no-circles', severity: 'error', from: {}, to: { circular: true } },
    {
      name: 'core-is-pure',
      comment:
        'The computation has no I/O, no framework and nothing of ours but itself; of packages, distributions and a cache.',
      severity: 'error',
      from: from('^core/src', { pathNot: tests }),
      to: { pathNot: '^(core/src|node_modules/jstat|(core/)?node_modules/lru-cache)' },
    },
    {
      name: 'contract-knows-core-only',
      severity: 'error',
      from: from('^contract/src', { pathNot: tests }),
      to: { pathNot: '^(contract/src|core/src|node_modules/valibot)' },
    },
    {
      name: 'drawn-knows-core-only',
      comment: 'What is drawn is geometry: no screen, no page.',
      severity: 'error',
      from: from('^drawn/src', { pathNot: tests }),
      to: { pathNot: '^(drawn/src|core/src)' },
    },
    {
      name: 'web-knows-contract-and-core',
      severity: 'error',
      from: from('^web/src'),
      to: { path: '^(server|scripts|e2e)/' },
    },
    {
      name: 'server-knows-contract-and-core',
      severity: 'error',
      from: from('^server/src', { pathNot: tests }),
      to: { path: '^(web|scripts|e2e)/' },
    },
    {
      name: 'stores-do-not-know-http',
      comment: 'Routes call services, services call stores; a store never looks up.',
      severity: 'error',
      from: from('^server/src/.*([sS]tore|summaries|presentFitting)\\.ts$'),
      to: { path: '^server/src/.*(routes|service)\\.ts$|^server/src/http/(serve|body|crossSite)\\.ts$' },
    },
    {
      name: 'only-db-knows-sequelize',
      comment: 'Outside the database folder nobody opens a connection: a Work is the only way in.',
      severity: 'error',
      from: from('^server/src', {
        pathNot: `^server/src/db/|${tests}`,
      }),
      to: { path: 'node_modules/sequelize' },
    },
    {
      name: 'stand-ins-are-programs-of-their-own',
      comment: 'A stand-in knows nothing of Pelrin but the protocol; Pelrin knows it over the network only.',
      severity: 'error',
      from: from('^standins/'),
      to: { pathNot: '^(standins/|node_modules/)', dependencyTypesNot: ['core'] },
    },
    {
      name: 'nobody-imports-a-stand-in',
      severity: 'error',
      from: from('^(core|contract|server|web)/src', { pathNot: tests }),
      to: { path: '^standins/' },
    },
    {
      name: 'pieces-do-not-know-places',
      severity: 'error',
      from: from('^web/src/(pieces|messages|theme|api|outbox|keys)/'),
      to: { path: '^web/src/(places|app)/' },
    },
    {
      name: 'not-to-unresolvable',
      severity: 'error',
      from: {},
      to: { couldNotResolve: true, pathNot: '^(virtual:|vite/client)' },
    },
  ],
  options: {
    doNotFollow: { path: 'node_modules' },
    exclude: { path: '(^|/)dist/' },
    tsPreCompilationDeps: true,
    tsConfig: { fileName: 'tsconfig.base.json' },
    enhancedResolveOptions: {
      exportsFields: ['exports'],
      conditionNames: ['import', 'types', 'node'],
      extensions: ['.ts', '.tsx', '.mjs', '.js', '.json'],
    },
  },
}
