import { randomUUID } from 'node:crypto';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { z } from 'zod';
import * as airframe from '@/app/api/v1/airframes/[registration]/route';
import * as airframes from '@/app/api/v1/airframes/route';
import * as booking from '@/app/api/v1/bookings/[id]/route';
import * as bookings from '@/app/api/v1/bookings/route';
import * as brief from '@/app/api/v1/briefs/[id]/route';
import * as changes from '@/app/api/v1/changes/route';
import * as checkout from '@/app/api/v1/checkouts/[id]/route';
import * as checkouts from '@/app/api/v1/checkouts/route';
import * as debrief from '@/app/api/v1/debriefs/[id]/route';
import * as entry from '@/app/api/v1/ledger/[id]/route';
import * as ledger from '@/app/api/v1/ledger/route';
import * as person from '@/app/api/v1/people/[id]/route';
import * as record from '@/app/api/v1/people/[id]/record/route';
import * as people from '@/app/api/v1/people/route';
import * as trace from '@/app/api/v1/traces/[id]/route';
import * as analyse from '@/app/api/v1/traces/analyse/route';
import * as type from '@/app/api/v1/types/[code]/route';
import * as types from '@/app/api/v1/types/route';
import { SCOPES, type Scope } from '@/domain/scopes';
import { createToken, endToken, tokenUser, tokensOf } from '@/server/account/commands/tokens';
import { acknowledgeDebrief, assessSelf, decideFinding, saveDebrief } from '@/server/debrief/commands/debrief';
import { acknowledgeBrief } from '@/server/checkout/commands/checkout';
import { recordEvents } from '@/server/fly/commands/capture';
import type { CurrentUser } from '@/server/floor/auth/permissions';
import { openApiDocument } from '@/server/interface/openapi';
import { ADDRESSES } from '@/server/interface/paths';
import type { ChangesAnswer } from '@/server/interface/shapes';
import { logFlight } from '@/server/people/commands/people';
import { backup, restore } from '@/server/running/backup';
import { cancelBooking } from '@/server/schedule/commands/bookings';
import { row, rows } from '../../scripts/lib/raw';
import { event, landing } from '../../scripts/lib/events';
import { demoFolder, done, shell, user } from './folder';
import { flownCheckout, said } from './signed';

type Route = Record<string, (r: Request, c: { params: Promise<Record<string, string>> }) => Promise<Response>>;
const ROUTES = {
  '/api/v1/changes': changes,
  '/api/v1/people': people,
  '/api/v1/people/{id}': person,
  '/api/v1/people/{id}/record': record,
  '/api/v1/bookings': bookings,
  '/api/v1/bookings/{id}': booking,
  '/api/v1/checkouts': checkouts,
  '/api/v1/checkouts/{id}': checkout,
  '/api/v1/briefs/{id}': brief,
  '/api/v1/debriefs/{id}': debrief,
  '/api/v1/ledger': ledger,
  '/api/v1/ledger/{id}': entry,
  '/api/v1/types': types,
  '/api/v1/types/{code}': type,
  '/api/v1/airframes': airframes,
  '/api/v1/airframes/{registration}': airframe,
  '/api/v1/traces/{id}': trace,
  '/api/v1/traces/analyse': analyse,
} as unknown as Record<string, Route>;

let close: () => Promise<void>;
let helena: CurrentUser;
let bento: CurrentUser;
let joana: CurrentUser;
const tokenOf = async (of: CurrentUser, scopes: readonly Scope[] = SCOPES): Promise<string> => {
  const { token } = done(await createToken(of, { name: 'a program', scopes }));
  for (const t of await tokensOf(of)) if (t.scopes.length !== scopes.length) await endToken(of, t.id);
  return token;
};
/** Asks an address as it is asked: `/api/v1/people/pilot-ines`. */
async function ask(token: string, href: string, method = 'GET', body?: unknown) {
  const url = new URL(href, 'http://school.example');
  const parts = url.pathname.split('/');
  const at = Object.keys(ROUTES)
    .filter(
      (p) => p.split('/').length === parts.length && p.split('/').every((x, i) => x.startsWith('{') || x === parts[i]),
    )
    .sort((a, b) => a.split('{').length - b.split('{').length)[0];
  const names = (at ?? '')
    .split('/')
    .flatMap((x, i) => (x.startsWith('{') ? [[x.slice(1, -1), decodeURIComponent(parts[i] ?? '')]] : []));
  const answer = await ROUTES[at ?? '']?.[method]?.(
    new Request(url, {
      method,
      headers: { authorization: `Bearer ${token}`, 'content-type': 'application/json' },
      ...(body === undefined ? {} : { body: JSON.stringify(body) }),
    }),
    { params: Promise.resolve(Object.fromEntries(names) as Record<string, string>) },
  );
  if (!answer) throw new Error(`${method} ${href} is no address`);
  return { status: answer.status, at, body: (await answer.json()) as Record<string, unknown> };
}
type Changed = z.output<typeof ChangesAnswer>;
const since = async (token: string, version?: string, more = ''): Promise<Changed> =>
  (await ask(token, `/api/v1/changes?limit=1000${version === undefined ? '' : `&since=${version}`}${more}`))
    .body as unknown as Changed;
const names = (c: Changed) => c.changes.map((x) => `${x.kind} ${x.id}`);
const sortieOf = async (pilot: string): Promise<string> =>
  (
    await row<{ id: string }>(
      `SELECT s.id FROM sorties s JOIN checkouts c ON c.id = s.checkout_id WHERE c.pilot_id = :p AND c.status = 'open'
       ORDER BY s.lesson DESC LIMIT 1`,
      { p: `pilot-${pilot}` },
    )
  )?.id ?? '';

beforeAll(async () => {
  ({ close } = await demoFolder());
  [helena, bento, joana] = [await user('helena'), await user('bento'), await user('joana')];
}, 120_000);
afterAll(() => close());

describe('tokens', () => {
  it('are known by their hash, with the rights of the moment and the scopes given, until they are ended', async () => {
    expect(await createToken(helena, { name: '', scopes: ['people'] })).toMatchObject({ problems: [{ path: 'name' }] });
    expect(await createToken(helena, { name: 'screen', scopes: [] })).toMatchObject({ problems: [{ path: 'scopes' }] });
    expect(await createToken(helena, { name: 'screen', scopes: ['all'] })).toMatchObject({ ok: false });
    const made = done(await createToken(helena, { name: 'screen', scopes: ['bookings', 'people', 'people'] }));
    expect((await shell('SELECT hash FROM personal_tokens')).rows[0]?.hash).not.toContain(made.token);
    const known = await tokenUser(`Bearer ${made.token}`);
    expect([known?.user.id, known?.scopes]).toEqual([helena.id, ['people', 'bookings']]);
    for (const bad of [null, 'Bearer', `Bearer ${made.token}x`, `Basic ${made.token}`, 'Bearer jt_short'])
      expect(await tokenUser(bad)).toBeNull();
    const [line] = await tokensOf(helena);
    expect(await endToken(joana, line?.id ?? '')).toMatchObject({ ok: false });
    expect(await endToken(helena, line?.id ?? '')).toEqual({ ok: true });
    expect(await tokenUser(`Bearer ${made.token}`)).toBeNull();
  });
});

describe('addresses', () => {
  it('are documented, all of them, and each answers what is documented', async () => {
    const doc = openApiDocument() as { paths: Record<string, Record<string, { security: unknown }>> };
    expect(Object.keys(doc.paths).sort()).toEqual(Object.keys(ROUTES).sort());
    expect(JSON.stringify(doc.paths['/api/v1/types/{code}'])).toContain('maxTakeoffKg');
    expect(doc.paths['/api/v1/people']?.get?.security).toEqual([{ token: ['people'] }]);
    const token = await tokenOf(bento);
    const all = await since(token);
    expect(all.more).toBe(false);
    const hrefs = [
      ...ADDRESSES.filter((a) => a.method === 'get' && !a.path.includes('{')).map((a) => a.path),
      ...new Set(all.changes.map((c) => c.href)),
      '/api/v1/people/pilot-ines/record',
    ];
    for (const href of hrefs) {
      const { status, at, body } = await ask(token, href);
      expect(status, href).toBe(200);
      const schema = ADDRESSES.find((a) => a.method === 'get' && a.path === at)?.answer;
      // Parsing leaves out what is not documented: nothing may be left out.
      expect(schema?.parse(body), href).toEqual(body);
    }
    expect(new Set(all.changes.map((c) => c.kind)).size).toBe(10);
  }, 120_000);

  it('want their scope, said before anything is looked up', async () => {
    for (const scope of SCOPES) {
      const token = await tokenOf(bento, [scope]);
      for (const a of ADDRESSES) {
        const href = a.path
          .replace('{code}', 'orla-mare')
          .replace('{registration}', 'ZP-URZ')
          .replace(/\{id\}/, 'pilot-ines');
        const { status, body } = await ask(token, href, a.method.toUpperCase(), a.method === 'get' ? undefined : {});
        const given = a.scope === 'any' || a.scope === scope;
        expect(status === 403, `${scope}: ${a.method} ${a.path} ${status}`).toBe(!given);
        if (!given) expect(String(body.message)).toMatch(/^This token was not given/);
      }
      const kinds = new Set((await since(token)).changes.map((c) => c.kind));
      const own: Partial<Record<Scope, string[]>> = {
        people: ['person', 'rules'],
        bookings: ['booking'],
        checkouts: ['brief', 'checkout'],
        debriefs: ['debrief'],
        ledger: ['ledger'],
        hangar: ['airframe', 'type'],
        traces: ['trace'],
      };
      expect([...kinds].sort()).toEqual(own[scope] ?? []);
    }
  });

  it('say which parameter does not fit, and that there is none of a name', async () => {
    const token = await tokenOf(bento);
    const refused: [string, string][] = [
      ['/api/v1/people?limit=0', 'limit'],
      ['/api/v1/people?limit=many', 'limit'],
      ['/api/v1/people?since=1', ''],
      ['/api/v1/checkouts?status=done', 'status'],
      ['/api/v1/bookings?to=2026-12-01', 'from'],
      ['/api/v1/bookings?from=2026-12-02&to=2026-12-01', 'to'],
      ['/api/v1/bookings?from=2026-02-30', 'from'],
      ['/api/v1/bookings?from=2026-01-01&to=2026-12-31', 'to'],
      ['/api/v1/changes?limit=5000', 'limit'],
    ];
    for (const [href, at] of refused) {
      const { status, body } = await ask(token, href);
      expect([status, (body.problems as { path: string }[])[0]?.path], href).toEqual([400, at]);
    }
    const page = async (offset: number) =>
      ((await ask(token, `/api/v1/people?limit=5&offset=${offset}`)).body.items as { id: string }[]).map((p) => p.id);
    const total = Number((await ask(token, '/api/v1/people?limit=1')).body.total);
    const walked = [];
    for (let offset = 0; offset < total; offset += 5) walked.push(...(await page(offset)));
    expect(walked).toEqual(((await ask(token, '/api/v1/people')).body.items as { id: string }[]).map((p) => p.id));
    // Both days count: the bookings of a day by hand.
    const day = (await ask(token, '/api/v1/bookings?from=2026-11-25&to=2026-11-25')).body.items as { id: string }[];
    const there = await rows<{ id: string }>(
      "SELECT id FROM bookings WHERE state = 'booked' AND starts_at >= '2026-11-25' AND starts_at < '2026-11-26'",
    );
    expect(day.map((b) => b.id).sort()).toEqual(there.map((b) => b.id).sort());
    expect(there.length).toBeGreaterThan(1);
  });
});

describe('the rules of the screens', () => {
  it('a pilot reads what is theirs; what is another’s answers like what is not there', async () => {
    const token = await tokenOf(joana);
    const nothing = await ask(token, '/api/v1/checkouts/none');
    expect(nothing.status).toBe(404);
    const all = await since(await tokenOf(bento));
    const own = new Set((await since(token)).changes.map((c) => c.href));
    for (const { href, kind } of all.changes) {
      const a = await ask(token, href);
      // A pilot reads the hangar; of the rest what was told as theirs and nothing else.
      if (own.has(href)) expect([href, a.status]).toEqual([href, 200]);
      else expect([kind, a.status, a.body]).toEqual([kind, 404, nothing.body]);
    }
    expect((await ask(token, '/api/v1/people/pilot-ines/record')).body).toEqual(nothing.body);
    const list = (await ask(token, '/api/v1/people')).body as { total: number; items: { id: string }[] };
    expect([list.total, list.items.map((p) => p.id)]).toEqual([1, ['pilot-joana']]);
    const week = (await ask(token, '/api/v1/bookings')).body.items as Record<string, unknown>[];
    expect(week.some((b) => b.masked)).toBe(true);
    for (const b of week.filter((x) => x.masked))
      expect([b.pilotId, b.pilotName, b.instructorName, b.checkoutId, b.note]).toEqual([null, null, null, null, '']);
    const entries = (await ask(token, '/api/v1/ledger')).body.items as { pilotName: string }[];
    expect(entries.every((e) => e.pilotName === joana.name)).toBe(true);
    expect((await ask(token, '/api/v1/types/orla-mare', 'PUT', {})).status).not.toBe(200);
  }, 60_000);

  it('what was judged is told to a pilot after their own assessment, as on the screen', async () => {
    const open = await rows<{ id: string; checkout_id: string; user: string }>(
      `SELECT s.id, s.checkout_id, u.id AS user FROM sorties s JOIN checkouts c ON c.id = s.checkout_id
       JOIN users u ON u.pilot_id = c.pilot_id
       WHERE c.status = 'open' AND EXISTS (SELECT 1 FROM landings l WHERE l.sortie_id = s.id AND l.kind = 'full-stop')
         AND NOT EXISTS (SELECT 1 FROM self_assessments a WHERE a.sortie_id = s.id)`,
    );
    const [lesson] = open;
    if (!lesson) throw new Error('every lesson of the demo was assessed');
    const pilot = await user(lesson.user.replace('user-', ''));
    const token = await tokenOf(pilot);
    const before = (await ask(token, `/api/v1/debriefs/${lesson.id}`)).body;
    expect([before.assessFirst, before.landings, before.debrief]).toEqual([true, [], null]);
    expect((await ask(token, `/api/v1/checkouts/${lesson.checkout_id}`)).body.findings).toBeNull();
    const staff = (await ask(await tokenOf(helena), `/api/v1/debriefs/${lesson.id}`)).body;
    expect([staff.assessFirst, (staff.landings as unknown[]).length > 0]).toEqual([false, true]);
    for (const l of open.filter((x) => x.checkout_id === lesson.checkout_id))
      expect(said(await assessSelf(pilot, { sortieId: l.id, own: 1, bestNumber: 1, workOn: 'line' }))).toBe('done');
    const after = (await ask(token, `/api/v1/debriefs/${lesson.id}`)).body;
    expect([after.assessFirst, after.landings]).toEqual([false, staff.landings]);
    const findings = (await ask(token, `/api/v1/checkouts/${lesson.checkout_id}`)).body.findings;
    expect(Array.isArray(findings)).toBe(true);
  });
});

describe('changes', () => {
  it('are each thing once in the order of its newest change, a page at a time as all at once', async () => {
    const token = await tokenOf(bento);
    const all = await since(token);
    expect(new Set(names(all)).size).toBe(all.changes.length);
    const walked: string[] = [];
    let version: string | undefined;
    for (let more = true; more;) {
      const href = `/api/v1/changes?limit=37${version === undefined ? '' : `&since=${version}`}`;
      const page = (await ask(token, href)).body as unknown as Changed;
      walked.push(...names(page));
      ({ version, more } = page);
    }
    expect(walked).toEqual(names(all));
    expect(await since(token, version)).toEqual({ version: all.version, more: false, changes: [] });
  });

  it('tell everything whose answer has changed, whoever changed it: asked before and after, by a second reading', async () => {
    const token = await tokenOf(bento);
    const start = await since(token);
    const hrefs = [...new Set(start.changes.map((c) => c.href))].filter((h) => h !== '/api/v1/people');
    const read = async () => {
      const answers = new Map<string, string>();
      for (const href of hrefs) {
        const { body } = await ask(token, href);
        // A finding weighs what was seen of other pilots, and shifts with them: told on the page of the interface.
        answers.set(href, JSON.stringify({ ...body, findings: null }));
      }
      return answers;
    };
    const before = await read();
    const ines = await user('ines');
    const sortie = await sortieOf('ines');
    const checkoutId =
      (await row<{ c: string }>('SELECT checkout_id AS c FROM sorties WHERE id = :sortie', { sortie }))?.c ?? '';
    const steps: [string, () => Promise<unknown>][] = [
      ['a landing', () => recordEvents(helena, [event('user-helena', sortie, 'landing-saved', landing())])],
      [
        'a flight logged',
        async () =>
          done(
            await logFlight(await user('duarte'), {
              requestId: randomUUID(),
              pilotId: 'pilot-duarte',
              flownOn: '2026-11-23',
              typeCode: 'serrana-urze',
              takeoffs: 3,
              landings: 3,
              fullStops: 3,
              night: false,
              surface: 'land',
              hours: 1,
              remark: '',
            }),
          ),
      ],
      [
        'a booking cancelled',
        async () => {
          const b = await row<{ id: string; version: number }>(
            "SELECT id, version FROM bookings WHERE state = 'booked' AND starts_at > '2026-11-25' AND pilot_id = 'pilot-ines'",
          );
          return done(await cancelBooking(helena, { bookingId: b?.id, version: b?.version, reason: 'fog all day' }));
        },
      ],
      [
        'a brief read',
        async () => {
          const b = await row<{ id: string; pilot: string }>(
            `SELECT b.id, c.pilot_id AS pilot FROM briefs b JOIN checkouts c ON c.id = b.checkout_id
           JOIN users u ON u.pilot_id = c.pilot_id
           WHERE b.acknowledged_at IS NULL AND c.status = 'open' ORDER BY b.created_at DESC LIMIT 1`,
          );
          return acknowledgeBrief(await user((b?.pilot ?? '').replace('pilot-', '')), b?.id ?? '');
        },
      ],
      [
        'a debrief kept, and read',
        async () => {
          const form = { requestId: randomUUID(), sortieId: sortie, focus: [], remark: 'The line.' };
          const { debriefId } = done(await saveDebrief(helena, form));
          return done(await acknowledgeDebrief(ines, debriefId));
        },
      ],
      [
        'a finding decided',
        async () =>
          done(
            await decideFinding(helena, {
              checkoutId,
              findingId: 'bias-left',
              decision: 'confirmed',
              reason: '',
              lesson: 1,
              own: null,
            }),
          ),
      ],
      [
        'a checkout opened, flown',
        () => flownCheckout(bento, 'gaspar', 'ZP-URA', ['tailwheel'], 'us', ['2026-11-20', '2026-11-21']),
      ],
      ['a person read by hand', () => shell("UPDATE pilots SET hours = hours + 1 WHERE id = 'pilot-nuno'")],
    ];
    let version = start.version;
    for (const [what, step] of steps) {
      await step();
      const now = await since(token, version);
      expect(now.changes.length, what).toBeGreaterThan(0);
      ({ version } = now);
    }
    const told = new Set((await since(token, start.version)).changes.map((c) => c.href));
    const after = await read();
    const changed = hrefs.filter((h) => before.get(h) !== after.get(h));
    expect(changed.length).toBeGreaterThan(6);
    expect(changed.filter((h) => !told.has(h))).toEqual([]);
    // Who changed nothing of theirs is told nothing.
    const other = await since(await tokenOf(ines), start.version);
    expect(other.changes.filter((c) => !['type', 'airframe', 'rules'].includes(c.kind) && !told.has(c.href))).toEqual(
      [],
    );
    expect(names(other).some((n) => n.includes('pilot-gaspar'))).toBe(false);
  }, 180_000);

  it('of another book, as after a backup was brought back, are refused: all is read again', async () => {
    const token = await tokenOf(bento);
    const { version } = await since(token);
    for (const bad of ['1', 'x.1', `${version}9`, `${version.split('.')[0]}.-1`, ''])
      expect((await ask(token, `/api/v1/changes?since=${encodeURIComponent(bad)}`)).status, bad).toBe(410);
    const folder = mkdtempSync(path.join(tmpdir(), 'jeito-brought-'));
    try {
      await backup(path.join(folder, 'a.tar.gz'), '2026-11-24T14:30:00.000Z');
      await restore(path.join(folder, 'a.tar.gz'), path.join(folder, 'back'));
      const here = process.env.JEITO_DATA;
      process.env.JEITO_DATA = path.join(folder, 'back');
      const told = await ask(token, `/api/v1/changes?since=${version}`);
      process.env.JEITO_DATA = here;
      expect([told.status, String(told.body.message).includes('backup')]).toEqual([410, true]);
    } finally {
      rmSync(folder, { recursive: true, force: true });
    }
  }, 60_000);
});
