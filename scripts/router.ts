/**
 * Many schools on one machine: each has its folder and its port, and this stands before them and sends each name to its
 * own:  npm run router -- schools.json [--port 8080] [--host 127.0.0.1]
 *
 *     [{ "name": "pedra-alva.example", "port": 3101 }, { "name": "quiet-marsh.example", "port": 3102 }]
 *
 * It keeps nothing and knows nobody: a school that does not answer is said, the others go on. TLS is the business of what
 * stands in front (docs/operations.md); the servers behind run with JEITO_PROXY=127.0.0.1.
 */
import './lib/help.mjs';
import { readFileSync } from 'node:fs';
import { parseArgs } from 'node:util';
import { router, schoolsOf } from './lib/router';

const { positionals, values } = parseArgs({
  allowPositionals: true,
  options: { port: { type: 'string' }, host: { type: 'string' } },
});
try {
  const [file] = positionals;
  if (!file) throw new Error('Say which file names the schools: npm run router -- schools.json');
  const schools = schoolsOf(readFileSync(file, 'utf8'));
  const port = Number(values.port ?? 8080);
  const host = values.host ?? '127.0.0.1';
  const server = router(schools);
  server.on('error', (error) => {
    console.error(`Not started: ${error.message}`);
    process.exit(1);
  });
  server.listen(port, host, () => {
    console.log(`The router listens on ${host}:${port}.`);
    for (const s of schools) console.log(`  ${s.name} goes to port ${s.port}`);
  });
  for (const signal of ['SIGTERM', 'SIGINT'] as const)
    process.once(signal, () => {
      server.close(() => process.exit(0));
      server.closeAllConnections();
    });
} catch (error) {
  console.error(error instanceof Error ? error.message : error);
  process.exit(2);
}
