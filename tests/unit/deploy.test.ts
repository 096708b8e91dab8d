import { existsSync, readFileSync, readdirSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { validate } from 'dockerfile-utils';
import { schoolsOf } from '../../scripts/lib/router';

const read = (file: string): string => readFileSync(file, 'utf8');
const commands = (JSON.parse(read('package.json')) as { scripts: Record<string, string> }).scripts;

describe('what an operator is given', () => {
  it('the Dockerfile is one, and copies nothing of a school into the image', () => {
    expect(validate(read('deploy/Dockerfile'))).toEqual([]);
    // That the linter does see something.
    expect(validate('FROM node\nCOPPY . .').length).toBeGreaterThan(0);
    for (const folder of ['data', 'backups', '.git', 'node_modules'])
      expect(read('.dockerignore').split('\n')).toContain(folder);
  });
  it('the service does not start again what cannot be mended by it, and waits for the last answers', () => {
    const unit = read('deploy/jeito@.service');
    expect(unit).toMatch(/^RestartPreventExitStatus=3 4$/m);
    expect(unit).toMatch(/^KillSignal=SIGTERM$/m);
    expect(Number(/^TimeoutStopSec=(\d+)$/m.exec(unit)?.[1])).toBeGreaterThan(10);
  });
  it('docs/operations.md names only commands, files and variables there are', () => {
    const text = read('docs/operations.md');
    for (const [, name] of text.matchAll(/npm run ([a-z:-]+)/g)) expect(commands, name).toHaveProperty([name ?? '']);
    for (const [, file] of text.matchAll(/`(deploy\/[^`]+)`/g)) expect(existsSync(file ?? ''), file).toBe(true);
    const known = read('.env.example');
    for (const [name] of text.matchAll(/\bJEITO_[A-Z_]+/g)) expect(known, name).toContain(`\n${name}=`);
    for (const [, link] of text.matchAll(/\]\((decisions\/[^)]+)\)/g))
      expect(existsSync(`docs/${link ?? ''}`), link).toBe(true);
    expect(text).toContain(readdirSync('src/server/floor/migrations').sort().at(-1) ?? '');
  });
  it('schools behind one door have a name and a port each, and no two the same', () => {
    expect(schoolsOf(read('deploy/schools.json')).length).toBe(3);
    const two = (a: object, b: object) => schoolsOf(JSON.stringify([a, b]));
    expect(() => two({ name: 'a.example', port: 1 }, { name: 'A.example', port: 2 })).toThrow(
      'Two schools have the name a.example',
    );
    expect(() => two({ name: 'a.example', port: 1 }, { name: 'b.example', port: 1 })).toThrow(
      'Two schools have the port 1',
    );
    expect(() => schoolsOf('[{"name":"a b","port":1}]')).toThrow('0.name');
    expect(() => schoolsOf('not json')).toThrow('no JSON');
  });
});
