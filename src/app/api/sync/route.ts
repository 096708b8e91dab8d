import { NextResponse } from 'next/server';
import { currentUser, sameOrigin } from '@/server/auth/session';
import { recordEvents } from '@/server/commands/capture';
import { SYNC_BATCH } from '@/offline/protocol';

/** Capture events from a device. 401 keeps them there and asks their author to sign in. */
export async function POST(request: Request) {
  const user = await currentUser();
  if (!user) return NextResponse.json({ message: 'Sign in to send what is on this device.' }, { status: 401 });
  if (!(await sameOrigin())) return NextResponse.json({ message: 'There is nothing here for you.' }, { status: 404 });
  const body = (await request.json().catch(() => null)) as { events?: unknown; sentAt?: unknown } | null;
  if (!body || !Array.isArray(body.events))
    return NextResponse.json({ message: 'Send {"events": [...]}.' }, { status: 400 });
  if (body.events.length > SYNC_BATCH)
    return NextResponse.json({ message: `Send at most ${SYNC_BATCH} events at once.` }, { status: 413 });
  // Devices of an earlier release say nothing of their clock.
  const sentAtMs = typeof body.sentAt === 'string' ? Date.parse(body.sentAt) : Number.NaN;
  return NextResponse.json(
    await recordEvents(user, body.events, Number.isFinite(sentAtMs) ? { sentAtMs, receivedAtMs: Date.now() } : null),
  );
}
