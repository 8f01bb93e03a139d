import rules from './.dependency-cruiser.mjs'

/**
 * Capabilities of the server do not know each other in circles. What they all stand on is left out: how a capability's rows are declared and
 * read (`models.ts`, `…Store.ts`), which know the database and each other, and nothing above.
 *
 * @type {import('dependency-cruiser').IConfiguration}
 */
export default {
  forbidden: [
    {
      name: 'no-circles-of-capabilities',
      severity: 'error',
      scope: 'folder',
      from: { path: '^server/src/[^/]+$' },
      to: { path: '^server/src/[^/]+$', circular: true },
    },
  ],
  options: {
    ...rules.options,
    exclude: { path: '(^|/)dist/|\\.test\\.ts$|/testing/|/models\\.ts$|[sS]tore\\.ts$' },
  },
}
