// The arrows between rooms (src/README.md). Each rule says why it holds.
// Subjects of the server from the floor up, and which others each may use (docs/rooms.md). Tables are data, not
// behaviour: those of any subject may be read by any.
const rooms = require('./src/server/rooms.json');
const server = (names, rest = '') => `^src/server/(${names.join('|')})/${rest}`;
const subjects = Object.entries(rooms).flatMap(([room, uses]) => {
  const others = Object.keys(rooms).filter((r) => r !== room && r !== 'floor' && !uses.includes(r));
  return others.length === 0
    ? []
    : [
        {
          name: `server-${room}`,
          comment: 'arrows between subjects are few, named, and none runs back up',
          severity: 'error',
          from: { path: server([room], '(?!tables\\.ts)') },
          to: { path: server(others), pathNot: '/tables\\.ts$' },
        },
      ];
});
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
        pathNot:
          'node_modules/(metar-taf-parser|fflate|canonicalize|fast-xml-parser|zod|suncalc|date-fns|@date-fns/tz|lru-cache|papaparse|geomagnetism)/',
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
    ...subjects,
    {
      name: 'tables-are-data',
      comment: 'a table knows the floor, the vocabulary and other tables',
      severity: 'error',
      from: { path: '^src/server/[^/]+/tables\\.ts$' },
      to: { path: '^src/server/(?!floor/|[^/]+/tables\\.ts)' },
    },
    {
      name: 'only-commands-write',
      comment: 'the ledger and the start write too: an entry before it is signed, a key, what is shipped',
      severity: 'error',
      from: {
        path: '^src/(server|app|ui)/',
        pathNot: '^src/server/([a-z]+/commands/|floor/|ledger/(add|entries)\\.ts|running/start\\.ts)',
      },
      to: { path: '^src/server/floor/write\\.ts$' },
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
