import { randomUUID } from 'node:crypto';
import { recordEvents } from '@/server/fly/commands/capture';
import { aggregatesSettled } from '@/server/checkout/commands/tallies';
import { closeDatabase, database } from '@/server/floor/connection';
import { row } from '../lib/raw';
import { migrate } from '@/server/floor/migrate';
import { write } from '@/server/floor/write';
import { userById } from '@/server/floor/auth/session-user';
import { event, landing } from '../lib/events';

/** What the attacks need to know, and a flight two pilots share: made before the server starts. */
export interface Facts {
  /** A flight helena runs, in which vasco, himself an instructor, swaps seats for his own checkout. */
  shared: string;
  sharedPilot: string;
  /** A landing of vasco in it, recorded by helena. */
  landingOfVasco: string;
  vascoPilot: string;
  /** Another flight helena runs, and one of her signed ones with a landing its entry rests on. */
  other: string;
  signed: { sortie: string; checkout: string; landing: string; entry: string };
  trace: string;
  foreignCheckout: string;
}

export async function prepareFacts(folder: string): Promise<Facts> {
  process.env.JEITO_DATA = folder;
  process.env.JEITO_NOW = '2026-11-24T14:30:00.000Z';
  await migrate();
  const one = async <T extends object>(sql: string, values: Record<string, unknown> = {}): Promise<T> => {
    const found = await row<T>(sql, values);
    if (!found) throw new Error(`the demo has no such row: ${sql.slice(0, 80)}`);
    return found;
  };
  const vasco = await one<{ pilot_id: string; checkout: string }>(
    "SELECT u.pilot_id, c.id AS checkout FROM users u JOIN checkouts c ON c.pilot_id = u.pilot_id WHERE u.id = 'user-vasco' AND c.status = 'open' LIMIT 1",
  );
  const flights = await one<{ shared: string; other: string; pilot: string }>(
    `SELECT a.id AS shared, b.id AS other, c.pilot_id AS pilot FROM sorties a JOIN checkouts c ON c.id = a.checkout_id, sorties b JOIN checkouts d ON d.id = b.checkout_id
     WHERE a.instructor_id = 'user-helena' AND b.instructor_id = 'user-helena' AND a.checkout_id <> b.checkout_id AND c.status = 'open' AND d.status = 'open'
       AND c.instructor_id = 'user-helena' AND d.instructor_id = 'user-helena' AND a.second_pilot_id IS NULL AND b.second_pilot_id IS NULL AND a.shared_with IS NULL AND b.shared_with IS NULL
       AND c.pilot_id <> :vasco AND d.pilot_id <> :vasco LIMIT 1`,
    { vasco: vasco.pilot_id },
  );
  await write((t) =>
    database().sequelize.query('UPDATE sorties SET second_pilot_id = :p, second_checkout_id = :c WHERE id = :id', {
      replacements: { p: vasco.pilot_id, c: vasco.checkout, id: flights.shared },
      transaction: t,
    }),
  );
  const helena = await userById('user-helena');
  if (!helena) throw new Error('no helena in the demo');
  const landingOfVasco = randomUUID();
  const kept = await recordEvents(helena, [
    event(helena.id, flights.shared, 'landing-saved', landing({ pilotId: vasco.pilot_id }), {
      subjectId: landingOfVasco,
    }),
  ]);
  if (kept.accepted.length !== 1) throw new Error(`the flight could not be prepared: ${JSON.stringify(kept)}`);
  const signed = await one<{ sortie: string; checkout: string; landing: string; entry: string }>(
    `SELECT l.sortie_id AS sortie, c.id AS checkout, l.id AS landing, c.signed_ledger_id AS entry FROM landings l JOIN checkouts c ON c.id = l.checkout_id JOIN sorties s ON s.id = l.sortie_id
     JOIN ledger e ON e.id = c.signed_ledger_id WHERE c.status = 'signed' AND s.instructor_id = 'user-helena' AND e.signer_id = 'user-helena' AND c.pilot_id <> 'pilot-duarte' AND instr(e.canonical, l.id) > 0 LIMIT 1`,
  );
  // Not of the pilot who looks at what is foreign.
  const { id: trace } = await one<{ id: string }>(
    "SELECT t.id FROM traces t JOIN sorties s ON s.id = t.sortie_id JOIN checkouts c ON c.id = s.checkout_id WHERE c.pilot_id <> 'pilot-duarte' LIMIT 1",
  );
  const { id: foreignCheckout } = await one<{ id: string }>(
    "SELECT id FROM checkouts WHERE pilot_id = 'pilot-clara' LIMIT 1",
  );
  await aggregatesSettled();
  await closeDatabase();
  return {
    shared: flights.shared,
    sharedPilot: flights.pilot,
    other: flights.other,
    landingOfVasco,
    vascoPilot: vasco.pilot_id,
    signed,
    trace,
    foreignCheckout,
  };
}
