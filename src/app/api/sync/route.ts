import { told } from '@/server/door/sentences';
import { NextResponse } from 'next/server';
import { recordEvents } from '@/server/fly/commands/capture';
import { door, refusal } from '@/server/door/route';
import { SYNC_BATCH } from '@/offline/protocol';

/** Capture events from a device. 401 keeps them there and asks their author to sign in. */
export const POST = door(
  { who: 'signed-in', writes: true, mostBytes: () => 4_000_000, signIn: told('sign-in-to-send') },
  async ({ user, bytes }) => {
    const receivedAtMs = Date.now();
    let body: { events?: unknown; sentAt?: unknown } | null = null;
    try {
      body = JSON.parse((await bytes()).toString('utf8')) as { events?: unknown; sentAt?: unknown } | null;
    } catch (error) {
      if (!(error instanceof SyntaxError)) throw error;
    }
    if (!body || !Array.isArray(body.events)) return refusal(400, told('not-events'));
    if (body.events.length > SYNC_BATCH) return refusal(413, told('too-many-events', { most: SYNC_BATCH }));
    // Devices of an earlier release say nothing of their clock.
    const sentAtMs = typeof body.sentAt === 'string' ? Date.parse(body.sentAt) : Number.NaN;
    return NextResponse.json(
      await recordEvents(user, body.events, Number.isFinite(sentAtMs) ? { sentAtMs, receivedAtMs } : null),
    );
  },
);
