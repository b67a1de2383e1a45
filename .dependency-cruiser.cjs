/** Arrows point one way: web → machine → core, and command → machine → core. */
module.exports = {
  forbidden: [
    {
      name: 'core-stands-alone',
      severity: 'error',
      from: { path: '^core/src' },
      to: { path: '^(machine|web|command)/' },
    },
    {
      name: 'core-without-node',
      severity: 'error',
      from: { path: '^core/src', pathNot: '(\\.test|-for-tests)\\.ts$' },
      to: { dependencyTypes: ['core'] },
    },
    {
      name: 'machine-knows-no-screen',
      severity: 'error',
      from: { path: '^machine/src' },
      to: { path: '^(web|command)/' },
    },
    { name: 'web-and-command-apart', severity: 'error', from: { path: '^web/' }, to: { path: '^command/' } },
    { name: 'command-knows-no-screen', severity: 'error', from: { path: '^command/src' }, to: { path: '^web/' } },
    {
      name: 'geometry-is-lowest',
      severity: 'error',
      from: { path: '^core/src/geometry' },
      to: { path: '^core/src/(artwork|bits|cuts|sequence|program|motion|carving|remarks|job|stock)/' },
    },
    { name: 'no-circles', severity: 'error', from: {}, to: { circular: true } },
  ],
  options: {
    doNotFollow: { path: 'node_modules' },
    tsPreCompilationDeps: true,
    tsConfig: { fileName: 'tsconfig.base.json' },
    enhancedResolveOptions: {
      extensions: ['.ts', '.js', '.svelte'],
      exportsFields: ['exports'],
      conditionNames: ['import', 'default'],
    },
  },
};
