const ROOMS = [
  'quantity',
  'schema',
  'fields',
  'document',
  'geometry',
  'tools',
  'stock',
  'motion',
  'carving',
  'artwork',
  'ways',
  'cuts',
  'sequence',
  'program',
  'machines',
  'remarks',
  'job',
  'compute',
];

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
    // The rooms of the core, the lowest first: each may know those before it, and itself. Tests stand above all.
    ...ROOMS.map((room, k) => ({
      name: `rooms-${room}`,
      severity: 'error',
      from: { path: `^core/src/${room}/`, pathNot: '(\\.test|-for-tests)\\.ts$' },
      to: { path: `^core/src/(${ROOMS.slice(k + 1).join('|')})/` },
    })).slice(0, -1),
    {
      name: 'rooms-are-known',
      severity: 'error',
      from: {},
      to: { path: '^core/src/', pathNot: `^core/src/(${ROOMS.join('|')})/` },
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
