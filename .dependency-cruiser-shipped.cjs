// What reaches the browser of the cockpit: types are erased before, so they are left out here and only here.
const rooms = require('./.dependency-cruiser.cjs');
/** @type {import('dependency-cruiser').IConfiguration} */
module.exports = {
  forbidden: [
    {
      name: 'fly-is-light',
      comment: 'the cockpit shell stays under 200 kB: no charts, form library, palette, overlays or schema library',
      severity: 'error',
      from: { path: '^src/(ui/fly|app/fly)' },
      to: { path: 'node_modules/(echarts|react-hook-form|react-bootstrap|zod)/', reachable: true },
    },
  ],
  options: { ...rooms.options, tsPreCompilationDeps: false },
};
