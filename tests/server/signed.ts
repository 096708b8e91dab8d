import { randomUUID } from 'node:crypto';
import type { BriefChoices, WindSeen } from '@/domain/brief';
import type { Goal, PackId } from '@/domain/words';
import type { CurrentUser } from '@/server/floor/auth/permissions';
import { recordEvents } from '@/server/fly/commands/capture';
import { acknowledgeBrief, openCheckout, saveBrief } from '@/server/checkout/commands/checkout';
import { type SignForm } from '@/domain/sign-forms';
import { signingState } from '@/server/ledger/commands/sign';
import { checkoutRecord } from '@/server/checkout/queries/record';
import { checkoutHead } from '@/server/checkout/queries/head';
import { hangar } from '@/server/hangar/queries/hangar';
import { DEMO_PASSWORD } from '@demo/people';
import { flightOf } from '../meet';
import { row } from '../../scripts/lib/raw';
import { user } from './folder';

export { user };
interface Refusal {
  path: string;
  code?: string;
  params?: Readonly<Record<string, unknown>>;
  message: string;
}
/** A command's answer: done, or each problem with its field, its code and what it is of; a schema's own in its words. */
export const said = (r: { ok: boolean; problems?: Refusal[] }): string =>
  r.ok
    ? 'done'
    : (r.problems ?? [])
        .map((p) => `${p.path}: ${p.code ?? p.message}${p.params ? ` ${JSON.stringify(p.params)}` : ''}`)
        .join(' | ');
export const recordOf = async (id: string) => {
  const head = await checkoutHead(id);
  if (!head) throw new Error(id);
  return checkoutRecord(head);
};
export const NO_LIMITS = {
  alone: false,
  noPassengers: false,
  crosswindKt: null,
  attitude: 'any',
  surface: 'any',
  untilHours: null,
} as const;
/** The form as the sign page would send it for what it shows this user now. */
export async function formFor(signer: CurrentUser, id: string, more: Partial<SignForm> = {}): Promise<SignForm> {
  const { stamp, text } = await signingState(signer, await recordOf(id));
  return {
    checkoutId: id,
    shown: stamp,
    text,
    signature: null,
    password: DEMO_PASSWORD,
    limitations: NO_LIMITS,
    remark: '',
    ...more,
  };
}

/** Opens a checkout and flies two lessons that meet every item but those named. */
export async function flownCheckout(
  by: CurrentUser,
  pilot: string,
  registration: string,
  goals: Goal[],
  pack: PackId,
  days: readonly [string, string],
  without: readonly string[] = [],
): Promise<string> {
  const frame = (await hangar()).flatMap((t) => t.airframes).find((a) => a.registration === registration);
  if (!frame) throw new Error(registration);
  const opened = await openCheckout(by, {
    requestId: randomUUID(),
    pilotId: `pilot-${pilot}`,
    airframeId: frame.id,
    pack,
    goals,
    standardKey: 'private-us',
    note: '',
  });
  if (!opened.ok) throw new Error(JSON.stringify(opened.problems));
  const pilotUser = await user(pilot);
  const water = frame.effective.surface !== 'land';
  const load = frame.effective.masses.emptyKg.value + 150;
  const fuelL = Math.min(
    frame.type.engine.usableFuelL.value,
    Math.floor((frame.type.masses.maxTakeoffKg.value - load) / 0.72),
  );
  for (const [nth, day] of days.entries()) {
    const wind: WindSeen = {
      source: 'report',
      raw: '',
      reference: 'true',
      variable: false,
      fromDeg: 290,
      kt: 9,
      gustKt: null,
      arcFromDeg: null,
      arcToDeg: null,
      observedAt: `${day}T09:16:00Z`,
    };
    const choices: BriefChoices = {
      flownOn: day,
      runwayEnd: water ? '18W' : '22',
      wind,
      maxFlapDeg: null,
      fuelL,
      pilotKg: 70,
      instructorKg: 70,
      baggageKg: 0,
      rearKg: 0,
      qnhHpa: 1019,
      oatC: 14,
      surfaceState: 'dry',
      night: false,
      bookingMin: 90,
      second: null,
      layout: { order: [], hidden: [], own: [] },
      speedSchool: frame.type.landing.speedSchool,
      gustSchool: 'half',
      intended: 'three-point',
      instructorLimitKt: by.ownCrosswindKt,
      focus: '',
    };
    const saved = await saveBrief(by, { requestId: randomUUID(), checkoutId: opened.id, choices, base: null });
    if (!saved.ok) throw new Error(JSON.stringify(saved.problems));
    await acknowledgeBrief(pilotUser, saved.briefId);
    const gates = (await recordOf(opened.id)).sorties.find((s) => s.id === saved.sortieId)?.brief?.snapshot.gates ?? [];
    const fence = gates[gates.length - 1]?.target ?? 60;
    for (const programme of (await recordOf(opened.id)).programmes) {
      const answer = await recordEvents(
        by,
        flightOf(
          programme,
          {
            sortieId: saved.sortieId,
            author: by.id,
            startedAt: `${day}T09:45:00Z`,
            runwayEnd: '22',
            waterEnd: '18W',
            fence,
            windDeg: 290,
            ...(frame.effective.surface === 'amphibian'
              ? { wheels: frame.effective.gear.lamps.filter((l) => l.state === 'lit').map((l) => l.wheel) }
              : {}),
          },
          without,
          nth === 1,
        ),
      );
      if (answer.refused.length > 0) throw new Error(JSON.stringify(answer.refused[0]));
    }
  }
  return opened.id;
}

/** The newest open checkout of somebody of the demo. */
export const openOf = async (pilot: string): Promise<string> =>
  (
    await row<{ id: string }>(
      "SELECT id FROM checkouts WHERE pilot_id = :p AND status = 'open' ORDER BY created_at DESC LIMIT 1",
      { p: `pilot-${pilot}` },
    )
  )?.id ?? '';
