import { told } from '@/server/door/sentences';
import { NextResponse } from 'next/server';
import { recordEvents } from '@/server/fly/commands/capture';
import { door, refusal } from '@/server/door/route';
import { SyncBody } from '@/domain/capture';
import { SYNC_BATCH } from '@/offline/protocol';

/** Capture events from a device. 401 keeps them there and asks their author to sign in. */
export const POST = door(
  { who: 'signed-in', writes: true, mostBytes: () => 4_000_000, signIn: told('sign-in-to-send') },
  async ({ user, bytes }) => {
    const receivedAtMs = Date.now();
    // Each event is cleaned by itself: one that cannot be read keeps no other back.
    const body = SyncBody.safeParse(parsedJson(await bytes()));
    if (!body.success) return refusal(400, told('not-events'));
    const { events, sentAt } = body.data;
    if (events.length > SYNC_BATCH) return refusal(413, told('too-many-events', { most: SYNC_BATCH }));
    // Devices of an earlier release say nothing of their clock.
    const sentAtMs = Date.parse(sentAt ?? '');
    return NextResponse.json(
      await recordEvents(user, events, Number.isFinite(sentAtMs) ? { sentAtMs, receivedAtMs } : null),
    );
  },
);

function parsedJson(bytes: Buffer): unknown {
  try {
    return JSON.parse(bytes.toString('utf8'));
  } catch (error) {
    if (!(error instanceof SyntaxError)) throw error;
    return null;
  }
}
