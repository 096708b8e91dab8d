import { randomUUID } from 'node:crypto';
import { readFileSync } from 'node:fs';
import path from 'node:path';
import type { Facts } from './facts';
import { PASSWORD, type Attack, type World, act, ask, mail, mustHold, said, signIn } from './world';

/** 7, 11, 14 and the races: what one person does to another. */
export function peopleAttacks(world: World, facts: Facts): Attack[] {
  const { server } = world;
  const own = 'vento fresco e mar alto';
  return [
    {
      no: '14',
      name: 'two pages open on one thing',
      run: async () => {
        const { cookie } = await signIn(server, 'bento');
        const base = JSON.stringify([['pilot'], [], null]);
        const roles = { userId: 'user-duarte', roles: ['pilot'], authorised: [], ownCrosswindKt: 9, base };
        const first = await act(server, 'saveRolesAction', [roles], { cookie });
        const second = await act(server, 'saveRolesAction', [{ ...roles, ownCrosswindKt: 12 }], { cookie });
        mustHold(said(first) === 'done', `the first was refused: ${said(first)}`);
        mustHold(/own crosswind limit 9 kt/.test(said(second)), `roles: ${said(second)}`);
        const again = await act(server, 'saveRolesAction', [{ ...roles, base: second.value.base }], { cookie });
        mustHold(said(again) === 'done', `after it was seen: ${said(again)}`);
        const windows = { person: 'p:pilot-nuno', validFrom: '2026-12-01', base: '' };
        const at = (fromMin: number) => [{ weekday: 2, fromMin, toMin: fromMin + 60 }];
        const one = await act(server, 'saveWindowsAction', [{ ...windows, windows: at(540) }], { cookie });
        const two = await act(server, 'saveWindowsAction', [{ ...windows, windows: at(600) }], { cookie });
        mustHold(said(one) === 'done' && /meanwhile/.test(said(two)), `windows: ${said(one)}; ${said(two)}`);
        return 'roles and weekly times: the second sees what the first did; briefs in the tests';
      },
    },
    {
      no: 'held',
      name: 'races: one correction, one booking',
      run: async () => {
        const { cookie } = await signIn(server, 'helena');
        const form = {
          requestId: randomUUID(),
          entryId: facts.signed.entry,
          password: PASSWORD,
          text: 'The remark names the wrong runway: it was 22.',
        };
        const done = await Promise.all([1, 2, 3].map(() => act(server, 'correctEntryAction', [form], { cookie })));
        const ids = new Set(done.map((d) => String(d.value.entryId)));
        mustHold(done.every((d) => d.value.ok) && ids.size === 1, done.map(said).join('; '));
        const wanted = (requestId: string) => ({
          ...{
            requestId,
            kind: 'other',
            pilotId: null,
            checkoutId: null,
            instructorId: 'user-bento',
            airframeId: null,
          },
          ...{ startsAt: '2026-12-15T10:00:00.000Z', minutes: 60, passengers: 0, surface: 'any', note: 'a meeting' },
        });
        const chief = await signIn(server, 'bento');
        const booked = await Promise.all(
          Array.from({ length: 4 }, () => act(server, 'bookAction', [wanted(randomUUID())], chief)),
        );
        const taken = booked.filter((b) => b.value.ok).length;
        mustHold(taken <= 1, `${taken} bookings for one hour`);
        return `three corrections at once are one entry; ${taken} of four bookings for one hour`;
      },
    },
    {
      no: '7',
      name: 'signing as somebody else by a first password',
      run: async () => {
        const chief = await signIn(server, 'bento');
        const given = await act(server, 'newFirstPasswordAction', ['user-helena'], chief);
        const password = String(given.value.password);
        const as = await signIn(server, 'helena', password);
        mustHold(as.said === 'done', `the given password does not sign in: ${as.said}`);
        const form = (word: string) => ({
          requestId: randomUUID(),
          entryId: facts.signed.entry,
          password: word,
          text: 'The remark names the wrong lesson: it was the third.',
        });
        const forged = await act(server, 'correctEntryAction', [form(password)], as);
        mustHold(/given to you by somebody else/.test(said(forged)), `signed as helena: ${said(forged)}`);
        const notices = await ask(server, '/notices', as);
        mustHold(notices.text.includes('gave your account a new password'), 'helena is not told');
        const chosen = await act(server, 'changePasswordAction', [{ password, next: own }], as);
        mustHold(said(chosen) === 'done', said(chosen));
        const now = await signIn(server, 'helena', own);
        const signed = await act(server, 'correctEntryAction', [form(own)], now);
        mustHold(said(signed) === 'done', said(signed));
        const entry = await ask(server, `/api/ledger/${String(signed.value.entryId)}/json`, now);
        mustHold(/passwordGiven/.test(entry.text), 'the entry says nothing of it');
        const page = await ask(server, `/ledger/${String(signed.value.entryId)}`, now);
        mustHold(page.text.includes('had been given by'), 'the page of the entry says nothing of it');
        return 'nothing is signed with it, its owner is told, and the entry after says so';
      },
    },
    {
      no: '11',
      name: 'what is left of somebody erased',
      run: async () => {
        const chief = await signIn(server, 'bento');
        const id = randomUUID();
        const name = 'Quiteria Zambujal Valadim';
        const made = await act(
          server,
          'addPersonAction',
          [
            {
              ...{ requestId: id, name, email: 'zambujal@x.example', massKg: 71, hours: 120, certificate: 'PPL 7712' },
              ...{ roles: ['pilot'], authorised: [] },
            },
          ],
          chief,
        );
        mustHold(said(made) === 'done', said(made));
        const pilotId = `pilot-${id}`;
        const token = String((made.value.link as { path?: string } | null)?.path).split('/')[2] ?? '';
        const password = 'three quiet gulls';
        const chosen = await act(server, 'spendLinkAction', [token, { password, again: password }]);
        mustHold(said(chosen) === 'done', said(chosen));
        const again = await act(server, 'spendLinkAction', [token, { password, again: password }]);
        mustHold(said(again) !== 'done', 'a link worked twice');
        const them = await signIn(server, 'zambujal@x.example', password);
        const away = {
          ...{ requestId: randomUUID(), who: `p:${pilotId}`, fromAt: '2026-12-03T08:00:00.000Z' },
          ...{ toAt: '2026-12-04T08:00:00.000Z', why: 'Zambujal knee surgery' },
        };
        const steps = [
          await act(server, 'saveAwayAction', [away], them),
          await act(
            server,
            'writeNoteAction',
            [{ requestId: randomUUID(), pilotId, text: 'Zambujal flies like a gull', visible: 'staff' }],
            chief,
          ),
          await act(
            server,
            'joinWaitingAction',
            [
              {
                ...{ requestId: randomUUID(), pilotId, checkoutId: null, minutes: 60, note: 'Zambujal waits' },
                ...{ fromDate: '2026-11-25', toDate: '2026-12-20' },
              },
            ],
            them,
          ),
        ];
        mustHold(
          steps.every((s) => said(s) === 'done'),
          steps.map(said).join('; '),
        );
        const record = await ask(server, `/api/people/${pilotId}/record`, them);
        for (const key of [
          'debriefs',
          'selfAssessments',
          'recordings',
          'timesAway',
          'reasons',
          'bookingChanges',
          'waiting',
        ])
          mustHold(record.text.includes(`"${key}"`), `the export lacks ${key}`);
        mustHold(record.text.includes('knee surgery'), 'the export lacks the reason of an absence');
        const gone = await act(
          server,
          'erasePersonAction',
          [{ pilotId, name, reason: `${name} asked for it in writing` }],
          chief,
        );
        mustHold(said(gone) === 'done', said(gone));
        const left: string[] = [];
        for (const file of ['jeito.sqlite', 'jeito.sqlite-wal']) {
          let bytes = Buffer.alloc(0);
          try {
            bytes = readFileSync(path.join(world.folder, file));
          } catch {
            continue;
          }
          for (const word of ['Zambujal', 'zambujal@', 'knee surgery', 'like a gull', 'PPL 7712'])
            if (bytes.includes(word)) left.push(`${word} in ${file}`);
        }
        mustHold(left.length === 0, left.join(', '));
        mustHold((await ask(server, '/api/palette', them)).status === 404, 'they are signed in still');
        return 'neither name, address nor words in the database, its free pages or its log; the export had all of it';
      },
    },
    {
      no: '11',
      name: 'people in the log',
      run: async () => {
        await ask(server, '/api/sync', { method: 'POST', body: '{' });
        const text = world.log();
        const named = ['Helena', 'Zambujal', mail('clara'), 'INSERT INTO', 'UPDATE users'].filter((w) =>
          text.includes(w),
        );
        mustHold(named.length === 0, `the log names ${named.join(', ')}`);
        return `${text.split('\n').length} lines of log, nobody in them`;
      },
    },
  ];
}
