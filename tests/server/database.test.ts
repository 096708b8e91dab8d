import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { CurrentUser } from '@/server/floor/auth/permissions';
import { labFacts } from '@/server/lab/queries/lab';
import { row, rows } from '../../scripts/lib/raw';
import { migrate } from '@/server/floor/migrate';
import { write } from '@/server/floor/write';
import { importContent, newestContent, shippedContent } from '@/server/rules/content';
import { freshFolder, shell } from './folder';
import { Pilots } from '@/server/account/tables';
import { Qualifications } from '@/server/people/tables';

let close: () => Promise<void>;
beforeAll(async () => {
  ({ close } = await freshFolder());
});
afterAll(() => close());

const pilot = (id: string) => ({
  id,
  name: id,
  massKg: 70,
  experience: '',
  hours: 1,
  crosswindCredit: null,
  experienceSince: {},
  createdAt: '2026-01-01T00:00:00Z',
});

describe('the one door for writers', () => {
  it('20 parallel writers all succeed, one after another', async () => {
    await Promise.all(
      Array.from({ length: 20 }, (_, i) =>
        write(async (t) => {
          const before = await row<{ n: number }>('SELECT COUNT(*) AS n FROM pilots', {}, t);
          await Pilots.insert(pilot(`p${i}`), t);
          const after = await row<{ n: number }>('SELECT COUNT(*) AS n FROM pilots', {}, t);
          expect((after?.n ?? 0) - (before?.n ?? 0)).toBe(1);
        }),
      ),
    );
    expect((await row<{ n: number }>('SELECT COUNT(*) AS n FROM pilots'))?.n).toBe(20);
  });
  it('refuses a write outside it, and a query inside it without its transaction', async () => {
    await expect(Pilots.insert(pilot('outside'), undefined as never)).rejects.toThrow('outside write()');
    await expect(write(async () => rows('SELECT 1'))).rejects.toThrow('does not carry its transaction');
    await expect(write(async () => write(async () => 1))).rejects.toThrow('wait for itself');
  });
  it('rolls back whole, and the next writer goes on', async () => {
    await expect(
      write(async (t) => {
        await Pilots.insert(pilot('half'), t);
        throw new Error('stop');
      }),
    ).rejects.toThrow('stop');
    expect(await row('SELECT id FROM pilots WHERE id = :id', { id: 'half' })).toBeNull();
    await write(async (t) => void (await Pilots.insert(pilot('after'), t)));
    expect(await row('SELECT id FROM pilots WHERE id = :id', { id: 'after' })).not.toBeNull();
  });
  it('holds foreign keys and durable settings on its connections', async () => {
    await expect(
      write(
        async (t) =>
          void (await Qualifications.insert(
            { id: 'q', pilotId: 'nobody', kind: 'x', gainedOn: null, note: '', ledgerId: null },
            t,
          )),
      ),
    ).rejects.toThrow();
    expect(await row('PRAGMA foreign_keys')).toEqual({ foreign_keys: 1 });
    expect(await row('PRAGMA synchronous')).toEqual({ synchronous: 2 });
    expect(await row('PRAGMA journal_mode')).toEqual({ journal_mode: 'wal' });
  });
});

describe('migrations', () => {
  it('run once', async () => {
    expect(await migrate()).toEqual([]);
  });
  it('leave every guard in place', async () => {
    const triggers = (
      await rows<{ name: string }>("SELECT name FROM sqlite_master WHERE type = 'trigger' ORDER BY name")
    )
      .map((t) => t.name)
      .filter((n) => !n.includes('_told_'));
    expect(triggers).toEqual([
      'airframe_versions_fixed',
      'airframe_versions_kept',
      'booking_changes_fixed',
      'booking_changes_kept',
      'booking_holds_apart',
      'booking_holds_fixed',
      'bookings_kept',
      'briefs_fixed',
      'briefs_kept',
      'capture_events_fixed',
      'capture_events_kept',
      'capture_events_once',
      'checkout_moves_fixed',
      'checkout_moves_kept',
      'content_versions_fixed',
      'content_versions_kept',
      'debriefs_fixed',
      'debriefs_kept',
      'erasures_fixed',
      'erasures_kept',
      'exceedance_releases_fixed',
      'exceedance_releases_kept',
      'exceedances_fixed',
      'exceedances_kept',
      'finding_decisions_fixed',
      'finding_decisions_kept',
      'flight_log_fixed',
      'flight_log_kept',
      'flight_log_struck_fixed',
      'flight_log_struck_kept',
      'grounding_ends_fixed',
      'grounding_ends_kept',
      'groundings_fixed',
      'groundings_kept',
      'ledger_fixed',
      'ledger_in_order',
      'ledger_kept',
      'lesson_plans_fixed',
      'lesson_plans_kept',
      'logbook_flights_fixed',
      'logbook_flights_kept',
      'override_answers_fixed',
      'override_answers_kept',
      'password_resets_fixed',
      'password_resets_kept',
      'person_dates_fixed',
      'person_dates_kept',
      'person_notes_fixed',
      'person_notes_kept',
      'pilot_eyes_fixed',
      'pilot_eyes_kept',
      'pilot_hours_fixed',
      'pilot_hours_kept',
      'power_decisions_fixed',
      'power_decisions_kept',
      'self_assessments_fixed',
      'self_assessments_kept',
      'sign_overrides_fixed',
      'sign_overrides_kept',
      'traces_fixed',
      'traces_kept',
      'type_versions_fixed',
      'type_versions_kept',
    ]);
  });
});

describe('content', () => {
  it('is imported once by hash; a change adds a version and leaves the old one', async () => {
    const first = await write((t) => importContent(shippedContent(), 'test', t));
    expect(first).toBeGreaterThan(8);
    expect(await write((t) => importContent(shippedContent(), 'test', t))).toBe(0);
    const house = await newestContent('house', 'house');
    await write((t) =>
      importContent([{ kind: 'house', key: 'house', body: { ...house?.body, signWithinDays: 21 } }], 'Bento', t),
    );
    expect((await newestContent('house', 'house'))?.body.signWithinDays).toBe(21);
    expect(await rows("SELECT version FROM content_versions WHERE kind = 'house' ORDER BY version")).toEqual([
      { version: 1 },
      { version: 2 },
    ]);
    expect((await shell("UPDATE content_versions SET body = '{}'")).error).toContain('never changes');
  });
});

describe('a school with nothing in it', () => {
  it('has a lab that says what is missing', async () => {
    const somebody = { id: 'u', email: '', name: 'U', roles: ['instructor'] } as unknown as CurrentUser;
    for (const subject of ['picture', 'circuit', 'taxi'] as const)
      expect(await labFacts(somebody, {}, subject)).toBe('no-type');
  });
});
