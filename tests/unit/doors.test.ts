import { describe, expect, it } from 'vitest';
import { clientAddress, plainAddress } from '@/server/door/address';
import { BadBody, bodyBytes } from '@/server/door/body';
import { Busy, HEAVY, heavy } from '@/server/floor/busy';
import { clean } from '@/server/floor/clean';

describe('who asks', () => {
  it('is one address however it is written, and one network where a household has a whole one', () => {
    expect(plainAddress('::ffff:10.1.2.3')).toBe('10.1.2.3');
    // RFC 4291: the shortened and the full form are one; the last 64 bits are the device.
    expect(plainAddress('2001:db8::1')).toBe(plainAddress('2001:0db8:0000:0000:aaaa:bbbb:cccc:dddd'));
    expect(plainAddress('2001:db8:0:1::1')).not.toBe(plainAddress('2001:db8::1'));
    expect(plainAddress('fe80::1%eth0')).toBe('fe80:0:0:0::');
  });
  it('is the socket, unless a proxy of ours says otherwise, and then only what it added', () => {
    expect(clientAddress('9.9.9.9', '1.1.1.1', [])).toBe('9.9.9.9');
    expect(clientAddress('10.0.0.1', 'forged, 1.1.1.1', ['10.0.0.1'])).toBe('1.1.1.1');
    expect(clientAddress('10.0.0.1', '1.1.1.1, 10.0.0.2', ['10.0.0.1', '10.0.0.2'])).toBe('1.1.1.1');
    expect(clientAddress('10.0.0.1', undefined, ['10.0.0.1'])).toBe('10.0.0.1');
    expect(clientAddress('10.0.0.3', '1.1.1.1', ['10.0.0.1'])).toBe('10.0.0.3');
  });
});

describe('what came in', () => {
  it('has one line end, no character that cannot be shown, no depth and no mass', () => {
    expect(clean({ a: 'x\r\ny\rz', b: [1, null, true] })).toEqual({
      ok: true,
      value: { a: 'x\ny\nz', b: [1, null, true] },
    });
    expect(clean({ a: [{ b: 'n\u0000l' }] })).toMatchObject({ ok: false, problem: { path: 'a.0.b' } });
    expect(clean('tab\tand ünïcode ✓')).toMatchObject({ ok: true });
    let deep: unknown = 1;
    for (let i = 0; i < 100; i++) deep = [deep];
    expect(clean(deep).ok).toBe(false);
    expect(clean(Array.from({ length: 70_000 }, () => 1)).ok).toBe(false);
    const hostile = clean(JSON.parse('{"__proto__": {"admin": true}, "a": 1}')) as { ok: true; value: object };
    expect(Object.keys(hostile.value)).toEqual(['a']);
    expect('admin' in hostile.value).toBe(false);
  });
  it('is counted as it streams, whatever it announced', async () => {
    const body = (bytes: number) => new Request('http://x.example', { method: 'POST', body: new Uint8Array(bytes) });
    expect((await bodyBytes(body(1000), 1000)).length).toBe(1000);
    await expect(bodyBytes(body(1001), 1000)).rejects.toMatchObject({ status: 413 });
    const pieces = () => {
      let sent = 0;
      return new ReadableStream<Uint8Array>({
        pull: (c) => (sent++ < 1000 ? c.enqueue(new Uint8Array(1000)) : c.close()),
      });
    };
    const stream = (headers: Record<string, string>) =>
      new Request('http://x.example', { method: 'POST', body: pieces(), headers, duplex: 'half' } as RequestInit);
    await expect(bodyBytes(stream({}), 500_000)).rejects.toBeInstanceOf(BadBody);
    await expect(bodyBytes(stream({ 'content-length': '2000000' }), 3_000_000)).rejects.toMatchObject({ status: 400 });
  });
});

describe('heavy work', () => {
  it('is done so many at a time, in turn, and who asks too often is refused', async () => {
    let running = 0;
    let most = 0;
    const order: string[] = [];
    const work = (name: string) => async () => {
      most = Math.max(most, ++running);
      await new Promise((r) => setTimeout(r, 5));
      order.push(name);
      running--;
    };
    const { atOnce, waiting, each } = HEAVY.pdf;
    const names = Array.from({ length: atOnce + waiting }, (_, i) => `p${i}`);
    const all = Promise.all(names.map((n) => heavy('pdf', n, work(n))));
    await expect(heavy('pdf', 'late', work('late'))).rejects.toBeInstanceOf(Busy);
    await all;
    expect(most).toBe(atOnce);
    expect(order).toEqual(names);
    const mine = Array.from({ length: each + 3 }, () => heavy('pdf', 'one', work('one')));
    const settled = await Promise.allSettled(mine);
    expect(settled.filter((s) => s.status === 'rejected').length).toBe(3);
    // A failure gives its place back.
    await expect(heavy('verify', 'x', () => Promise.reject(new Error('no')))).rejects.toThrow('no');
    await heavy('verify', 'x', work('after'));
  });
});
