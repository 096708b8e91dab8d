import { mkdirSync, readFileSync, readdirSync, statSync, writeFileSync } from 'node:fs';
import path from 'node:path';

/**
 * A disk on which only what was synced is sure. A file's bytes are sure when it was synced, a name when its folder was;
 * between the two a power cut may take any of it, in any mixture.
 */
export type Step =
  | { what: 'create' | 'sync' | 'remove'; at: string }
  | { what: 'write'; at: string; offset: number; bytes: Buffer }
  | { what: 'cut'; at: string; length: number }
  | { what: 'rename' | 'link'; at: string; to: string };

interface Change {
  offset: number;
  bytes: Buffer | null;
}
interface File {
  sure: Buffer;
  pending: Change[];
}
interface Naming {
  set?: [string, File];
  gone?: string;
}

const changed = (content: Buffer<ArrayBufferLike>, c: Change): Buffer<ArrayBufferLike> => {
  if (c.bytes === null) {
    const out = Buffer.alloc(c.offset);
    content.copy(out, 0, 0, c.offset);
    return out;
  }
  const end = c.offset + c.bytes.length;
  const out = end > content.length ? Buffer.concat([content, Buffer.alloc(end - content.length)]) : content;
  c.bytes.copy(out, c.offset);
  return out;
};

export function readSteps(log: string): Step[] {
  const data = readFileSync(`${log}.data`);
  return readFileSync(log, 'utf8')
    .split('\n')
    .filter(Boolean)
    .map((line): Step => {
      const [what = '', at = '', a = '', b = '', c = ''] = line.split('\t');
      switch (what) {
        case 'W':
          return {
            what: 'write',
            at,
            offset: Number(a),
            bytes: data.subarray(Number(c), Number(c) + Number(b)),
          };
        case 'T':
          return { what: 'cut', at, length: Number(a) };
        case 'R':
          return { what: 'rename', at, to: a };
        case 'L':
          return { what: 'link', at, to: a };
        case 'C':
          return { what: 'create', at };
        case 'U':
          return { what: 'remove', at };
        default:
          return { what: 'sync', at };
      }
    });
}

export class Disk {
  private names = new Map<string, File>();
  private sureNames = new Map<string, File>();
  private naming = new Map<string, Naming[]>();
  private readonly folders = new Set<string>(['']);

  constructor(base: string) {
    const walk = (at: string): void => {
      for (const name of readdirSync(path.join(base, at))) {
        const file = `${at}/${name}`;
        if (statSync(path.join(base, file)).isDirectory()) {
          this.folders.add(file);
          walk(file);
        } else {
          const f: File = { sure: readFileSync(path.join(base, file)), pending: [] };
          this.names.set(file, f);
          this.sureNames.set(file, f);
        }
      }
    };
    walk('');
  }

  private name(n: Naming): void {
    const of = n.set?.[0] ?? n.gone ?? '';
    const folder = path.posix.dirname(of) === '/' ? '' : path.posix.dirname(of);
    this.folders.add(folder);
    this.naming.set(folder, [...(this.naming.get(folder) ?? []), n]);
    this.applyName(this.names, n);
  }
  private applyName(to: Map<string, File>, n: Naming): void {
    if (n.set) to.set(n.set[0], n.set[1]);
    if (n.gone !== undefined) to.delete(n.gone);
  }

  take(step: Step): void {
    const file = this.names.get(step.at);
    switch (step.what) {
      case 'create':
        return this.name({ set: [step.at, { sure: Buffer.alloc(0), pending: [] }] });
      case 'write':
        return void file?.pending.push({ offset: step.offset, bytes: step.bytes });
      case 'cut':
        return void file?.pending.push({ offset: step.length, bytes: null });
      case 'rename':
        return file ? this.name({ set: [step.to, file], gone: step.at }) : undefined;
      case 'link':
        return file ? this.name({ set: [step.to, file] }) : undefined;
      case 'remove':
        return this.name({ gone: step.at });
      case 'sync':
        if (file) {
          file.sure = file.pending.reduce(changed, file.sure);
          file.pending = [];
        } else {
          for (const n of this.naming.get(step.at) ?? []) this.applyName(this.sureNames, n);
          this.naming.delete(step.at);
        }
    }
  }

  /**
   * The folder as it may be found after a power cut now.
   * @param chance null = everything that was not synced is lost; else what may have come down all the same
   */
  after(to: string, chance: (() => number) | null): void {
    const names = new Map(this.sureNames);
    for (const list of this.naming.values()) {
      const some = chance ? list.slice(0, Math.floor(chance() * (list.length + 1))) : [];
      for (const n of some) this.applyName(names, n);
    }
    for (const folder of this.folders) mkdirSync(path.join(to, folder), { recursive: true });
    for (const [name, file] of names) {
      // Shared memory of the database: never on the disk.
      if (name.endsWith('-shm')) continue;
      let content: Buffer<ArrayBufferLike> = Buffer.from(file.sure);
      if (chance)
        for (const c of file.pending) {
          const lot = chance();
          if (lot < 0.4) content = changed(content, c);
          // Torn: the first sectors came down, the rest did not.
          else if (lot < 0.6 && c.bytes && c.bytes.length > 512)
            content = changed(content, { offset: c.offset, bytes: c.bytes.subarray(0, 512 * Math.ceil(chance() * 4)) });
        }
      writeFileSync(path.join(to, name), content);
    }
  }
}
