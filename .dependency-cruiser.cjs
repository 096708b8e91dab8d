// The arrows between rooms (src/README.md). Each rule says why it holds.
const not = (...rooms) => ({ path: `^(${rooms.join('|')})` });
/** @type {import('dependency-cruiser').IConfiguration} */
module.exports = {
  forbidden: [
    { name: 'no-circular', severity: 'error', from: {}, to: { circular: true } },
    {
      name: 'domain-imports-nothing',
      comment: 'the vocabulary stands alone',
      severity: 'error',
      from: { path: '^src/domain' },
      to: { path: '^(src|content|demo)/', pathNot: '^src/domain' },
    },
    {
      name: 'core-only-domain',
      comment: 'computation knows no interface, no database',
      severity: 'error',
      from: { path: '^src/core' },
      to: { path: '^(src|content|demo)/', pathNot: '^src/(core|domain)' },
    },
    {
      name: 'core-pure-packages',
      comment: 'core runs in a browser, a worker and on the server alike: no Node, React or database',
      severity: 'error',
      from: { path: '^src/core', pathNot: '\\.test\\.ts$' },
      to: {
        dependencyTypes: ['npm', 'npm-dev', 'core'],
        pathNot: 'node_modules/(metar-taf-parser|canonicalize|fast-xml-parser|zod|suncalc|@date-fns/tz|papaparse)/',
      },
    },
    {
      name: 'workers-core-domain',
      severity: 'error',
      from: { path: '^src/workers' },
      to: not('src/server', 'src/ui', 'src/app'),
    },
    {
      name: 'server-arrows',
      severity: 'error',
      from: { path: '^src/server' },
      to: not('src/ui', 'src/app', 'src/workers', 'src/offline/client'),
    },
    {
      name: 'offline-arrows',
      severity: 'error',
      from: { path: '^src/offline' },
      to: not('src/server', 'src/ui', 'src/app'),
    },
    {
      name: 'ui-arrows',
      comment: 'server actions reach ui as props from app',
      severity: 'error',
      from: { path: '^src/ui' },
      to: not('src/server', 'src/app'),
    },
  ],
  options: {
    tsConfig: { fileName: 'tsconfig.json' },
    tsPreCompilationDeps: true,
    doNotFollow: { path: 'node_modules' },
    exclude: { path: '\\.next' },
    enhancedResolveOptions: {
      exportsFields: ['exports'],
      conditionNames: ['import', 'require', 'node', 'default', 'types'],
    },
  },
};
