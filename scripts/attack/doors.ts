import { randomUUID } from 'node:crypto';
import { readFileSync } from 'node:fs';
import path from 'node:path';
import { gzipSync } from 'node:zlib';
import type { Facts } from './facts';
import {
  PASSWORD,
  type Answer,
  type Attack,
  type World,
  act,
  ask,
  mail,
  mustHold,
  peakMb,
  said,
  serverPid,
  signIn,
} from './world';

/** While something heavy is asked for, does anybody else still get an answer? */
async function besideOthers<T>(world: World, work: Promise<T>): Promise<{ done: T; slowestMs: number }> {
  let slowestMs = 0;
  let over = false;
  const others = (async () => {
    while (!over) {
      slowestMs = Math.max(slowestMs, (await ask(world.server, '/api/ledger/key')).ms);
      await new Promise((r) => setTimeout(r, 50));
    }
  })();
  const done = await work.finally(() => (over = true));
  await others;
  return { done, slowestMs };
}
const words = (a: Answer): string => `${a.status} in ${(a.ms / 1000).toFixed(1)} s`;
/** Not a measure of speed, which is printed: beyond this nobody gets an answer any more. */
const SLOW_MS = 15_000;

/** 1, 4, 5, 10, 12, 13, 15: what anybody, or somebody signed in, can send. */
export function doorAttacks(world: World, facts: Facts, full: boolean): Attack[] {
  const { server } = world;
  const verify = (body: Buffer | string) => ask(server, '/api/verify', { body });
  return [
    {
      no: '1',
      name: 'a file of attachments, from anybody',
      run: async () => {
        const file = Buffer.from(`%PDF-1.7\n${'/EmbeddedFile stream\n'.repeat(128_000)}`);
        const { done, slowestMs } = await besideOthers(world, verify(file));
        mustHold(done.ms < 60_000 && slowestMs < SLOW_MS, `${words(done)}; others waited ${slowestMs} ms`);
        return `${(file.length / 1e6).toFixed(1)} MB answered ${words(done)}, others within ${slowestMs} ms`;
      },
    },
    {
      no: '1',
      name: 'a book of many small entries, from anybody',
      run: async () => {
        const entry = {
          ...{ seq: 1, id: 'a', kind: 'x', checkoutId: '', signedAt: '', signerId: '', canonical: '{}' },
          ...{ prevHash: '', hash: '', signature: 'AA==', keyId: 'k' },
        };
        const body = JSON.stringify({
          schema: 'ledger-export/1',
          entries: Array.from({ length: 14_000 }, () => entry),
          head: null,
        });
        const many = await besideOthers(world, verify(body));
        const head = { count: 999_999, hash: '', at: '', signature: 'AA==', keyId: 'k' };
        const claim = await besideOthers(
          world,
          verify(JSON.stringify({ schema: 'ledger-export/1', entries: [entry], head })),
        );
        const slowest = Math.max(many.slowestMs, claim.slowestMs);
        mustHold(many.done.ms < 60_000 && claim.done.ms < 60_000, `${words(many.done)}; ${words(claim.done)}`);
        mustHold(slowest < SLOW_MS, `others waited ${slowest} ms`);
        return `${(body.length / 1e6).toFixed(1)} MB ${words(many.done)}, a head that claims a million ${words(claim.done)}, others within ${slowest} ms`;
      },
    },
    {
      no: '4',
      name: 'bodies that announce no length',
      run: async () => {
        const pid = serverPid(world.folder);
        const before = peakMb(pid);
        const bytes = (full ? 400 : 100) * 1_000_000;
        const routes = [
          ...['/api/verify', '/api/sync', '/api/traces', '/api/v1/traces/analyse', '/sign-in', '/api/palette'],
          '/api/people/pilot-clara/import',
        ];
        const answers = [];
        for (const to of routes)
          answers.push(
            await ask(server, to, {
              method: 'POST',
              chunkedBytes: bytes,
              headers:
                to === '/sign-in' ? { 'content-type': 'multipart/form-data; boundary=x', 'next-action': '0' } : {},
            }),
          );
        const { cookie } = await signIn(server, 'helena');
        for (const to of ['/api/sync', '/api/people/pilot-clara/import', '/api/verify'])
          answers.push(
            await ask(server, to, {
              method: 'POST',
              chunkedBytes: bytes,
              cookie,
              headers: { 'sec-fetch-site': 'same-origin' },
            }),
          );
        const grew = peakMb(pid) - before;
        mustHold(grew < 200, `memory grew by ${grew} MB; ${answers.map((a) => a.status).join(' ')}`);
        return `${answers.length} bodies of ${bytes / 1e6} MB: answers ${answers.map((a) => a.status).join(' ')}, memory grew by ${grew} MB`;
      },
    },
    {
      no: '5',
      name: 'a burst of passwords for one account',
      run: async () => {
        const tries = await Promise.all(
          Array.from({ length: 60 }, (_, i) => signIn(server, 'nuno', `wrong ${i}`, '127.0.0.21')),
        );
        const looked = tries.filter((t) => t.said.includes('do not match')).length;
        mustHold(looked <= 6, `${looked} of 60 were looked at`);
        return `${looked} of 60 at once were looked at`;
      },
    },
    {
      no: '5',
      name: 'locking somebody out',
      run: async () => {
        const first = await signIn(server, 'clara', PASSWORD, '127.0.0.31');
        mustHold(first.said === 'done', `clara could not sign in at all: ${first.said}`);
        for (let round = 0; round < 8; round++)
          await Promise.all(
            Array.from({ length: 10 }, (_, i) => signIn(server, 'clara', `no ${i}`, `127.0.0.${40 + round}`)),
          );
        const again = await signIn(server, 'clara', PASSWORD, '127.0.0.31');
        mustHold(again.said === 'done', `from where she signed in before: ${again.said}`);
        const stranger = await signIn(server, 'clara', PASSWORD, '127.0.0.77');
        mustHold(stranger.said !== 'done', 'eighty wrong tries from eight addresses stopped nobody');
        return '80 wrong tries from 8 addresses; from where she signed in before she still does, from a new address she waits';
      },
    },
    {
      no: '5',
      name: 'three hundred sign-ins at once',
      run: async () => {
        const { done, slowestMs } = await besideOthers(
          world,
          Promise.all(Array.from({ length: 300 }, (_, i) => signIn(server, `nobody${i}@x.example`, 'x', '127.0.0.22'))),
        );
        mustHold(slowestMs < SLOW_MS, `others waited ${slowestMs} ms`);
        const hashed = done.filter((d) => d.said.includes('do not match')).length;
        const forged = await act(server, 'signInAction', [{ email: mail('rui'), password: 'x' }], {
          page: '/sign-in',
          from: '127.0.0.22',
          headers: { 'x-forwarded-for': '10.9.8.7', 'x-jeito-address': '10.9.8.7' },
        });
        mustHold(
          forged.answer.status === 429 || said(forged).includes('Too many'),
          `a forged address was believed: ${said(forged)}`,
        );
        return `${hashed} of 300 hashed, others within ${slowestMs} ms; a forged address is not believed`;
      },
    },
    {
      no: '10',
      name: 'a cookie kept after sign-out, a token and a calendar after a new password',
      run: async () => {
        const { cookie } = await signIn(server, 'ines');
        mustHold((await ask(server, '/api/palette', { cookie })).status === 200, 'ines is not signed in');
        await act(server, 'signOutAction', [], { cookie });
        mustHold((await ask(server, '/api/palette', { cookie })).status === 404, 'the cookie lives after sign-out');
        const back = await signIn(server, 'ines');
        const token = String(
          (await act(server, 'createTokenAction', [{ name: 'reader', scopes: ['hangar'] }], back)).value.token,
        );
        const feed = String((await act(server, 'openFeedAction', [{ alarmMin: 60 }], back)).value.secret);
        const bearer = { headers: { authorization: `Bearer ${token}` } };
        mustHold((await ask(server, '/api/v1/types', bearer)).status === 200, 'the token does not work');
        mustHold((await ask(server, `/api/calendar/${feed}.ics`)).status === 200, 'the calendar does not work');
        const next = 'mar alto e vento fresco';
        const changed = await act(server, 'changePasswordAction', [{ password: PASSWORD, next }], back);
        mustHold(said(changed) === 'done', said(changed));
        for (const [what, answer] of [
          ['token', await ask(server, '/api/v1/types', bearer)],
          ['calendar', await ask(server, `/api/calendar/${feed}.ics`)],
          ['old session', await ask(server, '/api/palette', back)],
        ] as const)
          mustHold(answer.status === 404, `the ${what} lives after a new password`);
        const now = await signIn(server, 'ines', next);
        const made = [];
        for (let i = 0; i < 12; i++)
          made.push(said(await act(server, 'createTokenAction', [{ name: `t${i}`, scopes: ['hangar'] }], now)));
        mustHold(made.filter((m) => m === 'done').length === 10, `${made.filter((m) => m === 'done').length} tokens`);
        return 'all of them dead; ten tokens at most';
      },
    },
    {
      no: '12',
      name: 'what a browser keeps of people',
      run: async () => {
        const { cookie } = await signIn(server, 'helena');
        for (const to of [
          ...[`/api/traces/${facts.trace}/series`, '/board', `/checkouts/${facts.signed.checkout}`],
          ...['/api/palette', `/api/ledger/${facts.signed.entry}/pdf`, '/people'],
        ]) {
          const { status, headers } = await ask(server, to, { cookie });
          mustHold(status === 200, `${to} answers ${status}`);
          mustHold(/no-store/.test(headers['cache-control'] ?? ''), `${to}: ${headers['cache-control'] ?? 'nothing'}`);
        }
        return 'series, pages, answers and papers: no-store';
      },
    },
    {
      no: '13',
      name: 'many analyses at once',
      run: async () => {
        const { cookie } = await signIn(server, 'helena');
        const text = `time,lat,lon\n${Array.from({ length: 60_000 }, (_, i) => `${i},39.5,-7.4`).join('\n')}`;
        const body = JSON.stringify({ text, context: {} });
        const headers = { 'content-type': 'application/json' };
        const { done, slowestMs } = await besideOthers(
          world,
          Promise.all(
            Array.from({ length: 16 }, () => ask(server, '/api/v1/traces/analyse', { cookie, body, headers })),
          ),
        );
        const refused = done.filter((d) => d.status === 429).length;
        mustHold(refused > 0, 'sixteen ran for one person');
        mustHold(slowestMs < SLOW_MS, `others waited ${slowestMs} ms`);
        const bomb = await ask(server, '/api/v1/traces/analyse', {
          cookie,
          headers: { 'content-type': 'multipart/form-data; boundary=b' },
          body: Buffer.concat([
            Buffer.from('--b\r\ncontent-disposition: form-data; name="file"; filename="x.gz"\r\n\r\n'),
            gzipSync(Buffer.alloc(200_000_000)),
            Buffer.from('\r\n--b--\r\n'),
          ]),
        });
        mustHold(bomb.status === 400, `a gzip that unpacks to 200 MB: ${bomb.status}`);
        return `${refused} of 16 told to wait, others within ${slowestMs} ms; a gzip of 200 MB refused`;
      },
    },
    {
      no: '15',
      name: 'headers on every route',
      run: async () => {
        const { cookie } = await signIn(server, 'bento');
        const pages = [
          ...['/board', '/checkouts', '/hangar', '/people', '/schedule', '/lab', '/ledger', '/settings', '/account'],
          ...['/verify', '/fly', '/rules', '/traces', '/notices', '/sign-in', '/no-such-page', '/people/x.js'],
          `/checkouts/${facts.signed.checkout}`,
        ];
        for (const to of pages) {
          const { headers } = await ask(server, to, { cookie });
          const policy = headers['content-security-policy'];
          mustHold(typeof policy === 'string', `${to} has no policy`);
          const scripts = /script-src ([^;]*)/.exec(policy)?.[1] ?? '';
          mustHold(!/unsafe|\*|https?:/.test(scripts), `${to} runs anything: ${scripts}`);
          mustHold(to === '/fly' ? /sha256/.test(scripts) : /nonce-/.test(scripts), `${to}: ${scripts}`);
          mustHold(/style-src 'self'(;|$)/.test(policy), `${to}: styles from anywhere`);
        }
        const routes = [
          ...['/api/palette', '/api/ledger/key', '/api/ledger/export', '/api/v1/types', '/api/v1/openapi.json'],
          ...[`/api/ledger/${facts.signed.entry}/json`, '/api/people/pilot-clara/record', '/api/none', '/sw.js'],
        ];
        for (const to of [...pages, ...routes]) {
          const { headers } = await ask(server, to, { cookie });
          if (to.startsWith('/api/'))
            mustHold(/default-src 'none'/.test(String(headers['content-security-policy'])), `${to} has no policy`);
          for (const [name, want] of [
            ['x-content-type-options', /nosniff/],
            ['x-frame-options', /DENY/],
            ['referrer-policy', /same-origin/],
            ['cross-origin-opener-policy', /same-origin/],
            ['cross-origin-resource-policy', /same-origin/],
            ['permissions-policy', /camera=\(\)/],
          ] as const)
            mustHold(want.test(String(headers[name] ?? '')), `${to} lacks ${name}`);
        }
        const nonces = new Set<string>();
        for (let i = 0; i < 5; i++)
          nonces.add(String((await ask(server, '/board', { cookie })).headers['content-security-policy']));
        mustHold(nonces.size === 5, 'a nonce was given twice');
        return `${pages.length} pages and ${routes.length} routes; a nonce is never given twice`;
      },
    },
    {
      no: '18',
      name: 'names and values nobody types',
      run: async () => {
        const { cookie } = await signIn(server, 'bento');
        for (const to of [
          ...['/api/v1/types/constructor', '/api/v1/types/none', '/api/v1/airframes/__proto__'],
          ...[`/api/traces/${facts.trace}/export?as=constructor`, '/hangar/constructor', '/rules/constructor/toString'],
          ...[
            '/api/rules/constructor/constructor',
            '/api/ledger/export?as=constructor',
            '/lab/ground?type=constructor',
          ],
          ...['/schedule?day=9999-12-31', '/schedule?week=0000-01-01', '/schedule?day=275760-09-13'],
          ...['/api/traces/..%2f..%2fkeys%2fsession.key/export?as=file', '/api/calendar/%00', '/people/%00'],
        ]) {
          const { status } = await ask(server, to, { cookie });
          mustHold(status < 500, `${to} answers ${status}`);
        }
        for (const bad of ['jeito_session=garbage', 'jeito_session=%E0%A4%A', 'jeito_session=Fe26.2*1*x'])
          for (const to of ['/board', '/api/palette', '/sign-in']) {
            const { status } = await ask(server, to, { cookie: bad });
            mustHold(status < 500, `${to} with ${bad} answers ${status}`);
          }
        const columns = await ask(server, '/api/v1/traces/analyse', {
          cookie,
          headers: { 'content-type': 'application/json' },
          body: JSON.stringify({ text: 'constructor,toString,__proto__\n1,2,3\n', context: {}, mapping: null }),
        });
        mustHold(columns.status < 500, `a column called constructor: ${columns.status}`);
        const note = { requestId: randomUUID(), pilotId: 'pilot-clara', visible: 'staff' };
        const nul = await act(server, 'writeNoteAction', [{ ...note, text: 'a\u0000b and more' }], { cookie });
        mustHold(said(nul).includes('cannot be shown'), `NUL: ${said(nul)}`);
        mustHold(
          said(await act(server, 'writeNoteAction', [{ ...note, text: 'one\r\ntwo' }], { cookie })) === 'done',
          'a line end was refused',
        );
        const odd = [];
        for (const [name, args] of [
          ['endTokenAction', [{ $gt: '' }]],
          ['acknowledgeBriefAction', [[1, 2]]],
          ['withdrawNoteAction', [null]],
          ['openFeedAction', ['x']],
          ['proposeSlotsAction', [{ checkoutId: { a: 1 } }]],
          ['whatIfAction', [{ pilotId: 3 }]],
          ['saveBriefTemplateAction', [{}]],
          ['leaveWaitingAction', [{}]],
          ['decidePowerAction', [[]]],
          ['deskEventAction', [null]],
        ] as const) {
          const done = await act(server, name, [...args], { cookie });
          if (done.answer.status >= 500 || done.value.ok !== false) odd.push(`${name}: ${done.answer.status}`);
        }
        mustHold(odd.length === 0, odd.join(', '));
        const source = readFileSync(path.join('scripts', 'demo.mjs'), 'utf8');
        mustHold(/JEITO_HOST \?\? 'localhost'/.test(source), 'the demo listens to everybody');
        return 'no 500 among 15 addresses, 3 cookies, columns and 10 actions; NUL refused, line ends made one; the demo listens here only';
      },
    },
    {
      no: 'held',
      name: 'another site, another frame, another pilot',
      run: async () => {
        const { cookie } = await signIn(server, 'duarte');
        const foreign = await act(server, 'seeNoticesAction', [], {
          cookie,
          headers: { origin: 'https://elsewhere.example', 'sec-fetch-site': 'cross-site' },
        });
        mustHold(foreign.value.ok !== true, 'an action from another site was done');
        const bodies = new Set<string>();
        for (const to of [
          ...[`/api/ledger/${facts.signed.entry}/pdf`, `/api/ledger/${facts.signed.entry}/json`],
          ...['/api/people/pilot-clara/record', '/api/people/nobody/record', '/api/people/pilot-clara/logbook'],
          ...[`/api/traces/${facts.trace}/series`, `/api/sorties/${facts.other}`, '/api/ledger/export'],
          ...[`/api/checkouts/${facts.foreignCheckout}/booklet`, '/api/rules/pack/us', `/api/v1/traces/${facts.trace}`],
        ]) {
          const a = await ask(server, to, { cookie });
          bodies.add(`${a.status} ${a.text}`);
        }
        mustHold(bodies.size === 1, [...bodies].join(' | ').slice(0, 300));
        const open = await ask(server, '/sign-in?next=https://elsewhere.example', { cookie });
        mustHold(!String(open.headers.location ?? '').includes('elsewhere'), 'an open redirect');
        return '11 foreign things answer like one that is not there; nothing from another site is done';
      },
    },
  ];
}
