const only = (name, from, allowed) => ({
  name,
  severity: 'error',
  from: { path: from },
  to: { path: '^(packages|apps|demo|tests|tools)/', pathNot: [allowed, 'node_modules'] },
});

/** Imports run one way: core ← formats, scene; scene ← render; core ← store, sync; the applications may use all. */
module.exports = {
  forbidden: [
    {
      name: 'no-cycles',
      severity: 'error',
      from: {},
      to: { circular: true },
    },
    only('core-imports-nothing-of-ours', '^packages/core/src', '^packages/core/src'),
    only('formats-over-core', '^packages/formats/src', '^packages/(formats|core)/src'),
    only('scene-over-core', '^packages/scene/src', '^packages/(scene|core)/src'),
    only('render-over-scene', '^packages/render/src', '^packages/(render|scene)/src'),
    only('starters-over-core', '^packages/starters/src', '^packages/(starters|core)/src'),
    only('sync-over-core', '^packages/sync/src', '^packages/(sync|core)/src'),
    only('store-over-core', '^packages/store/src', '^packages/(store|core)/src'),
    only('applications-over-packages', '^apps/cli/', '^(packages/|apps/cli/)'),
    only('applications-over-packages-web', '^apps/web/', '^(packages/|apps/web/)'),
    only('applications-over-packages-worker', '^apps/worker/src', '^(packages/|apps/worker/)'),
    {
      name: 'hands-know-no-store',
      comment: 'What reads a stranger’s file has no way to the database.',
      severity: 'error',
      from: { path: '^apps/worker/src/hands/(hand|tasks|writePage|packed)' },
      to: { path: '^packages/store/', dependencyTypesNot: ['type-only'] },
    },
    {
      name: 'features-know-no-features',
      comment: 'What two rooms need stands in ui/ or in a package.',
      severity: 'error',
      from: { path: '^apps/web/src/features/([^/]+)/' },
      to: { path: '^apps/web/src/features/', pathNot: '^apps/web/src/features/$1/' },
    },
    {
      name: 'ui-knows-no-features',
      severity: 'error',
      from: { path: '^apps/web/src/(ui|workers|server)/' },
      to: { path: '^apps/web/src/(features|app)/' },
    },
    {
      name: 'core-scene-and-sync-are-pure',
      severity: 'error',
      from: { path: '^packages/(core|scene|sync)/src' },
      to: { dependencyTypes: ['core'] },
    },
    {
      name: 'only-store-knows-sql',
      severity: 'error',
      from: { path: '^(packages/(core|formats|scene|render|sync)|apps)/' },
      to: { path: 'node_modules/(pg|drizzle-orm)' },
    },
  ],
  options: {
    doNotFollow: { path: 'node_modules' },
    exclude: { path: '(\\.next|/fonts/)' },
    tsPreCompilationDeps: true,
    tsConfig: { fileName: 'tsconfig.json' },
    enhancedResolveOptions: {
      exportsFields: ['exports'],
      conditionNames: ['import', 'require', 'node', 'default', 'types'],
      extensions: ['.ts', '.tsx', '.js', '.mjs', '.json'],
    },
  },
};
