/** Arrows point one way: core ← contract ← domain ← server, web; core, contract ← simulators; demo goes through the services. */
const only = (from, allowed) => ({
  name: `${from}-reaches-only-${allowed.join('-') || 'itself'}`,
  severity: 'error',
  from: { path: `^${from}/`, pathNot: '\\.test\\.ts$|/testing/' },
  to: {
    path: '^(core|contract|domain|server|simulators|web|demo|e2e|scripts)/',
    pathNot: `^(${[from, ...allowed].join('|')})/`,
  },
});

module.exports = {
  forbidden: [
    only('core', []),
    only('contract', ['core']),
    only('domain', ['contract', 'core']),
    only('server', ['domain', 'contract', 'core']),
    only('web', ['domain', 'contract', 'core']),
    only('simulators', ['contract', 'core']),
    only('demo', ['domain', 'contract', 'core', 'server', 'simulators']),
    only('e2e', ['scripts']),
    { name: 'no-circular', severity: 'error', from: {}, to: { circular: true } },
    {
      name: 'core-without-platform',
      severity: 'error',
      from: { path: '^core/', pathNot: '\\.test\\.ts$' },
      to: { dependencyTypes: ['core'] },
    },
  ],
  options: {
    doNotFollow: { path: 'node_modules' },
    exclude: { path: 'node_modules|/dist/' },
    tsPreCompilationDeps: true,
    tsConfig: { fileName: 'tsconfig.base.json' },
    enhancedResolveOptions: {
      extensions: ['.ts', '.vue', '.js', '.mjs', '.json'],
      exportsFields: ['exports'],
      conditionNames: ['import', 'default'],
    },
  },
};
