import { createHash } from 'node:crypto';
import { describe, expect, it } from 'vitest';
import {
  LEDGER_START_HASH,
  type LedgerHead,
  type LedgerRow,
  type LedgerTools,
  canonicalText,
  entryProblems,
  headText,
  newKeyOf,
  verifyLedger,
} from '@/core/ledger';

const sha256Hex = (t: string) => createHash('sha256').update(t).digest('hex');
const sign = (t: string) => Buffer.from(sha256Hex(`key${t}`)).toString('base64');
const tools: LedgerTools = {
  sha256Hex,
  verifySignature: (t, s) => sign(t) === Buffer.from(s, 'base64').toString('base64'),
  reencodeBase64: (t) => Buffer.from(t, 'base64').toString('base64'),
};

function book(n: number): { rows: LedgerRow[]; head: LedgerHead } {
  const rows: LedgerRow[] = [];
  let prevHash = LEDGER_START_HASH;
  for (let seq = 1; seq <= n; seq++) {
    const base = {
      seq,
      id: `id${seq}`,
      kind: 'sign-off',
      checkoutId: `c${seq}`,
      signedAt: '2026-11-24T10:00:00.000Z',
      signerId: 'u',
      prevHash,
    };
    const canonical = canonicalText({ ...base, body: { pilot: 'A', n: seq } });
    const hash = sha256Hex(canonical);
    rows.push({ ...base, canonical, hash, signature: sign(canonical), keyId: 'k' });
    prevHash = hash;
  }
  const part = { count: n, hash: prevHash, at: '2026-11-24T10:00:00.000Z' };
  return { rows, head: { ...part, signature: sign(headText(part)), keyId: 'k' } };
}
const change = (seq: number, by: (r: LedgerRow) => Partial<LedgerRow>) => {
  const { rows, head } = book(4);
  return verifyLedger(
    rows.map((r) => (r.seq === seq ? { ...r, ...by(r) } : r)),
    head,
    tools,
  );
};

describe('verifyLedger', () => {
  it('a whole ledger has no problems, nor has one longer than the last head', () => {
    const { rows, head } = book(4);
    expect(verifyLedger(rows, head, tools)).toEqual([]);
    expect(verifyLedger(rows, book(3).head, tools)).toEqual([]);
    expect(verifyLedger([], null, tools)).toEqual([]);
  });
  it('names the entry whose text was changed', () => {
    const found = change(2, (r) => ({ canonical: r.canonical.replace('"A"', '"B"') }));
    expect(found.some((p) => p.seq === 2 && p.code === 'hash')).toBe(true);
    expect(found.some((p) => p.seq === 2 && p.code === 'signature')).toBe(true);
  });
  it.each(['checkoutId', 'signerId', 'signedAt', 'kind'] as const)(
    'names the entry whose column %s was changed',
    (column) => {
      expect(change(3, () => ({ [column]: 'x' }))).toEqual([
        { seq: 3, id: 'id3', code: 'column', params: { name: column } },
      ]);
    },
  );
  it('sees text that only decodes to the same: spaces in JSON, letters of a hash, a loose signature', () => {
    expect(
      change(2, (r) => ({ canonical: r.canonical.replace('{', '{ ') })).some((p) => p.code === 'not-canonical'),
    ).toBe(true);
    expect(change(2, (r) => ({ hash: r.hash.toUpperCase() })).some((p) => p.seq === 2)).toBe(true);
    expect(
      change(2, (r) => ({ signature: `${r.signature.slice(0, 5)} ${r.signature.slice(5)}` })).map((p) => p.code),
    ).toEqual(['signature-form']);
  });
  it('names the entries of a cut tail, and one taken from the middle', () => {
    const { rows, head } = book(4);
    expect(verifyLedger(rows.slice(0, 2), head, tools).map((p) => p.seq)).toEqual([3, 4]);
    expect(
      verifyLedger(
        rows.filter((r) => r.seq !== 2),
        head,
        tools,
      ).some((p) => p.seq === 2 && p.code === 'missing'),
    ).toBe(true);
    expect(verifyLedger([], head, tools).length).toBe(4);
  });
  it('does not trust a head that was changed, nor a missing one', () => {
    const { rows, head } = book(4);
    expect(verifyLedger(rows.slice(0, 3), { ...head, count: 3 }, tools)[0]?.code).toBe('head-changed');
    expect(verifyLedger(rows, null, tools)[0]?.code).toBe('head-missing');
  });
});

describe('keys of the ledger', () => {
  /** A book whose entry `at` hands over to another key; entries after it are signed with `then`. */
  const handedOver = (n: number, at: number, then: string, names = then): { rows: LedgerRow[]; head: LedgerHead } => {
    const rows: LedgerRow[] = [];
    let prevHash = LEDGER_START_HASH;
    for (let seq = 1; seq <= n; seq++) {
      const base = {
        seq,
        id: `id${seq}`,
        kind: seq === at ? 'key-rotated' : 'sign-off',
        checkoutId: '',
        signedAt: '2026-11-24T10:00:00.000Z',
        signerId: 'u',
        prevHash,
      };
      const canonical = canonicalText({ ...base, body: seq === at ? { newKeyId: names } : { n: seq } });
      const hash = sha256Hex(canonical);
      rows.push({ ...base, canonical, hash, signature: sign(canonical), keyId: seq > at ? then : 'k' });
      prevHash = hash;
    }
    const part = { count: n, hash: prevHash, at: '2026-11-24T10:00:00.000Z' };
    return { rows, head: { ...part, signature: sign(headText(part)), keyId: then } };
  };
  it('one follows another only by an entry that names it', () => {
    const good = handedOver(6, 3, 'k2');
    expect(verifyLedger(good.rows, good.head, tools)).toEqual([]);
    const other = handedOver(6, 3, 'k3', 'k2');
    expect(
      verifyLedger(other.rows, null, tools)
        .filter((p) => p.code === 'key-unknown')
        .map((p) => p.seq),
    ).toEqual([4, 5, 6]);
    const without = handedOver(6, 99, 'k2');
    expect(
      verifyLedger(
        without.rows.map((r) => (r.seq > 4 ? { ...r, keyId: 'k2' } : r)),
        null,
        tools,
      ).some((p) => p.code === 'key-unknown'),
    ).toBe(true);
  });
  it('a head signed with a key the ledger never took up says nothing for it', () => {
    const { rows, head } = book(4);
    expect(verifyLedger(rows, { ...head, keyId: 'elsewhere' }, tools)).toEqual([
      { seq: 4, id: null, code: 'head-key-unknown' },
    ]);
  });
  it('an entry is checked by itself, wherever it stood', () => {
    const [, second] = book(3).rows;
    if (!second) throw new Error('no entry');
    expect(entryProblems(second, tools)).toEqual([]);
    expect(entryProblems({ ...second, canonical: second.canonical.replace('"n":2', '"n":3') }, tools)).toEqual([
      { code: 'hash' },
      { code: 'signature' },
    ]);
    expect(entryProblems({ ...second, canonical: '[]' }, tools)).toContainEqual({
      code: 'column',
      params: { name: 'seq' },
    });
    expect(newKeyOf({ canonical: 'not json' })).toBeNull();
    expect(newKeyOf({ canonical: '{"body":{"newKeyId":7}}' })).toBeNull();
  });
});
