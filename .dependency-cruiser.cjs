/** Imports run downward only: app → ui, server → actions, queries → workings → store, formats, standins → core. */
const room = (name, allowed, packages) => ({
  name: `${name} keeps to its room`,
  severity: 'error',
  from: { path: `^src/${name}/`, pathNot: '\\.test\\.tsx?$' },
  to: { path: '^src/', pathNot: [`^src/${name}/`, ...allowed.map((a) => `^src/${a}/`)] },
  ...packages,
});

const SERVER_FILES = [
  '^src/app/server/',
  '^src/app/actions/',
  '/(page|layout|route|error|not-found)\\.tsx?$',
  '/jobPage\\.tsx$',
];

module.exports = {
  forbidden: [
    room('core', []),
    room('formats', ['core']),
    room('standins', ['core', 'formats']),
    room('store', ['core', 'formats']),
    room('workings', ['core', 'store', 'formats']),
    room('actions', ['core', 'store', 'formats', 'standins', 'workings']),
    room('queries', ['core', 'store', 'formats', 'standins', 'workings']),
    room('server', ['core', 'store', 'formats', 'workings', 'actions', 'queries']),
    room('ui', ['core', 'store', 'workings', 'actions', 'queries']),
    room('demo', ['core', 'store', 'formats', 'standins', 'workings', 'actions', 'queries']),
    {
      name: 'core knows plain data only',
      comment: 'Beside itself, core may import dinero.js, big.js, date-fns and zod.',
      severity: 'error',
      from: { path: '^src/core/', pathNot: '\\.test\\.tsx?$' },
      to: {
        dependencyTypes: ['npm', 'npm-dev', 'core', 'unknown'],
        pathNot: 'node_modules/(dinero\\.js|big\\.js|date-fns|zod)/',
      },
    },
    {
      name: 'the interface takes only types from the store',
      severity: 'error',
      from: { path: '^src/ui/', pathNot: '\\.test\\.tsx?$' },
      to: { path: '^src/(store|workings|actions|queries)/', dependencyTypesNot: ['type-only'] },
    },
    {
      name: 'what runs in the browser takes only types from the store',
      comment: 'In the routes that is all but pages, layouts, routes, and what stands in app/server.',
      severity: 'error',
      from: { path: '^src/app/.*\\.tsx?$', pathNot: SERVER_FILES },
      to: { path: '^src/(store|workings|actions|queries)/', dependencyTypesNot: ['type-only'] },
    },
    {
      name: 'a step of the schema runs no code of today',
      severity: 'error',
      from: { path: '^src/store/migrations/' },
      to: { pathNot: '^src/store/migrations/' },
    },
    {
      name: 'no circles',
      severity: 'error',
      from: {},
      to: { circular: true },
    },
    {
      name: 'the application does not need its tests',
      severity: 'error',
      from: { path: '^src/', pathNot: '\\.test\\.tsx?$' },
      to: { path: '(^tests/|\\.test\\.tsx?$)' },
    },
  ],
  options: {
    doNotFollow: { path: 'node_modules' },
    tsPreCompilationDeps: true,
    tsConfig: { fileName: 'tsconfig.json' },
    enhancedResolveOptions: {
      exportsFields: ['exports'],
      conditionNames: ['import', 'require', 'node', 'default', 'types'],
      extensions: ['.ts', '.tsx', '.js', '.mjs', '.cjs', '.json', '.d.ts'],
    },
  },
};
