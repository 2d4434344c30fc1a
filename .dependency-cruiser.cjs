/** Imports run one way: core ← contract ← server, web, demo; and the core knows nothing of the world. */
module.exports = {
  forbidden: [
    {
      name: 'no-circles',
      severity: 'error',
      from: {},
      to: { circular: true, viaOnly: { dependencyTypesNot: ['type-only'] } },
    },
    {
      name: 'core-is-pure',
      severity: 'error',
      from: { path: '^core/src', pathNot: '\\.test\\.ts$' },
      to: { pathNot: '^core/src|node_modules/(fast-xml-parser|papaparse|fft[.]js)|@types/papaparse' },
    },
    {
      name: 'contract-knows-core-only',
      severity: 'error',
      from: { path: '^contract/src' },
      to: { path: '^(server|web|demo)/' },
    },
    {
      name: 'demo-knows-core-only',
      severity: 'error',
      from: { path: '^demo/src' },
      to: { path: '^(server|web|contract)/' },
    },
    {
      name: 'web-does-not-know-the-server',
      severity: 'error',
      from: { path: '^web/src' },
      to: { path: '^(server|demo)/' },
    },
    { name: 'server-does-not-know-the-web', severity: 'error', from: { path: '^server/src' }, to: { path: '^web/' } },
    {
      name: 'web-takes-types-from-the-contract',
      comment: 'Request classes carry decorators of the server; only the vocabulary is plain.',
      severity: 'error',
      from: { path: '^web/src' },
      to: { path: '^contract/src', pathNot: '^contract/src/vocabulary', dependencyTypesNot: ['type-only'] },
    },
    {
      name: 'no-orphans',
      severity: 'error',
      from: { orphan: true, pathNot: '(\\.d\\.ts|\\.test\\.ts)$|vite\\.config|main\\.tsx?$|work/(cube-)?worker|cli/' },
      to: {},
    },
  ],
  options: {
    tsPreCompilationDeps: true,
    tsConfig: { fileName: 'tsconfig.depcruise.json' },
    doNotFollow: { path: 'node_modules|dist' },
    exclude: { path: '\\.test\\.ts$' },
    enhancedResolveOptions: {
      exportsFields: ['exports'],
      conditionNames: ['types', 'import', 'default'],
      extensions: ['.ts', '.tsx', '.js'],
    },
  },
};
