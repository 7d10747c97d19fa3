/** The layers: app and server -> shared -> core. A wrong import fails the lint step. */
const only = (name, from, allowed, comment) => ({
  name,
  severity: 'error',
  comment,
  from: { path: `^${from}/`, pathNot: '\\.test\\.ts$|/testing/' },
  to: { path: '^(core|shared|server|app|demo|tools|tests)/', pathNot: allowed.map((room) => `^${room}/`) }
})

module.exports = {
  forbidden: [
    only('core-stands-alone', 'core', ['core'], 'core imports nothing but core'),
    only('shared-knows-core', 'shared', ['shared', 'core'], 'shared imports core only'),
    only('server-below', 'server', ['server', 'shared', 'core'], 'server knows no screen, no demo'),
    only('app-below', 'app', ['app', 'shared', 'core'], 'the application knows the server by its wire only'),
    {
      name: 'core-is-pure',
      severity: 'error',
      comment: 'core uses no package and nothing of Node: no clock, no randomness, no network',
      from: { path: '^core/', pathNot: '\\.test\\.ts$|/testing/' },
      to: { dependencyTypes: ['npm', 'npm-dev', 'core'] }
    },
    {
      name: 'contracts',
      severity: 'error',
      comment: 'outside core, its folders are known by their index only',
      from: { path: '^(shared|server|app|demo|tools)/' },
      to: { path: '^core/[^/]+/(?!index\\.ts$)', pathNot: '/testing/' }
    },
    {
      name: 'no-circles',
      severity: 'error',
      from: {},
      to: { circular: true, viaOnly: { dependencyTypesNot: ['type-only'] } }
    },
    {
      name: 'no-orphans-of-types',
      severity: 'error',
      from: {},
      // Files asked for by their address are resolved by the bundler.
      to: { couldNotResolve: true, pathNot: '^(#|~|vuetify|@fontsource)|\\?url$' }
    }
  ],
  options: {
    doNotFollow: { path: 'node_modules' },
    exclude: { path: '^(\\.nuxt|\\.output|node_modules)' },
    tsPreCompilationDeps: true,
    tsConfig: { fileName: 'tsconfig.tools.json' },
    enhancedResolveOptions: {
      conditionNames: ['import', 'require', 'node', 'default', 'types'],
      exportsFields: ['exports'],
      extensions: ['.ts', '.vue', '.mjs', '.js']
    }
  }
}
