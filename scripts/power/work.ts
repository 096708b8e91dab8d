/**
 * What is done while the power may go: events recorded, a recording kept, entries signed, the key handed over. Each thing
 * that was said to be done is written to `acks`, in the same order of steps as everything else.
 */
import { appendFileSync } from 'node:fs';
import { randomUUID } from 'node:crypto';
import { recordEvents } from '@/server/fly/commands/capture';
import { addTrace } from '@/server/traces/commands/traces';
import { inData } from '@/server/floor/data-folder';
import { closeDatabase } from '@/server/floor/connection';
import { row } from '../lib/raw';
import { write } from '@/server/floor/write';
import { appendEntry, ledgerKeyId, publishHead, rotateKey } from '@/server/ledger/entries';
import { currentPublicKey, firstKey } from '@/server/ledger/keys';
import { userById } from '@/server/floor/auth/session-user';
import { prepareServer } from '@/server/running/start';
import { hashOf, keptFile } from '@/server/traces/files';
import { event, landing } from '../lib/events';

export type Ack =
  | { kind: 'event'; id: string }
  | { kind: 'entry'; id: string }
  | { kind: 'trace'; id: string; hash: string }
  | { kind: 'key'; id: string };
const ack = (a: Ack): void => appendFileSync(inData('acks'), `${JSON.stringify(a)}\n`);
const AT = '2026-11-24T14:30:00.000Z';

async function sign(n: number): Promise<void> {
  for (let i = 0; i < n; i++) {
    const id = randomUUID();
    const body = { text: `a remark ${i}`, signer: { id: 'user-helena', name: 'Helena' } };
    await write((t) =>
      appendEntry({ id, kind: 'correction', checkoutId: '', signedAt: AT, signerId: 'user-helena', body }, t),
    );
    await publishHead(AT);
    ack({ kind: 'entry', id });
  }
}

await prepareServer();
if (process.argv[2] === 'new') {
  firstKey(await ledgerKeyId());
  ack({ kind: 'key', id: currentPublicKey().keyId });
  await sign(4);
} else {
  const helena = await userById('user-helena');
  const flight = await row<{ id: string; trace: string | null }>(
    "SELECT s.id, (SELECT hash FROM traces LIMIT 1) AS trace FROM sorties s JOIN checkouts c ON c.id = s.checkout_id WHERE s.instructor_id = 'user-helena' AND c.instructor_id = 'user-helena' AND c.status = 'open' AND s.shared_with IS NULL LIMIT 1",
  );
  if (!helena || !flight?.trace) throw new Error('the demo has no flight to record');
  for (let i = 0; i < 5; i++) {
    const one = event(helena.id, flight.id, 'landing-saved', landing());
    const done = await recordEvents(helena, [one]);
    for (const id of done.accepted) ack({ kind: 'event', id });
  }
  const bytes = Buffer.concat([await keptFile(flight.trace), Buffer.from('\n')]);
  const sortieOf = await row<{ sortie_id: string }>('SELECT sortie_id FROM traces WHERE hash = :hash', {
    hash: flight.trace,
  });
  const kept = await addTrace(helena, { sortieId: sortieOf?.sortie_id ?? '', name: 'x.csv', bytes, mapping: null });
  if (!kept.ok) throw new Error(JSON.stringify(kept.problems));
  ack({ kind: 'trace', id: kept.id, hash: hashOf(bytes) });
  await sign(3);
  const { to } = await rotateKey({ id: 'user-bento', name: 'Bento' }, 'the machine is replaced', AT);
  ack({ kind: 'key', id: to });
  await sign(2);
}
await closeDatabase();
