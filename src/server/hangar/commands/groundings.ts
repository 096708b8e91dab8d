import { randomUUID } from 'node:crypto';
import { z } from 'zod';
import { Certified, EndGroundingForm, GroundForm } from '@/domain/grounding-forms';
import { type CurrentUser, may } from '../../floor/auth/permissions';
import { nowIso } from '../../floor/clock';
import { problem, type Result, zodProblems } from '../../floor/result';
import * as ask from '../../floor/statements/hangar';
import { write } from '../../floor/write';
import { told } from '../sentences';
import { Airframes, GroundingEnds, Groundings } from '../tables';

/**
 * Takes an aeroplane out of service: staff for a finding of airworthiness, the chief for a hold of the school. Sent twice
 * it is one grounding.
 */
export async function groundAirframe(user: CurrentUser, form: unknown): Promise<Result<{ id: string }>> {
  const parsed = GroundForm.safeParse(form);
  if (!parsed.success) return zodProblems(parsed.error);
  const { requestId, airframeId, kind, why } = parsed.data;
  if (!may.ground(user, kind)) return problem('', kind === 'school' ? told('chief-holds') : told('staff-ground'));
  return write(async (t): Promise<Result<{ id: string }>> => {
    const done = await Groundings.first({ where: { requestId }, pick: ['id'] }, t);
    if (done) return { ok: true, id: done.id };
    const known = await Airframes.first({ where: { id: airframeId }, pick: ['id'] }, t);
    if (!known) return problem('airframeId', told('aeroplane-unknown'));
    const id = randomUUID();
    await Groundings.insert(
      { id, requestId: requestId, airframeId: airframeId, kind, why, placedBy: user.id, placedAt: nowIso() },
      t,
    );
    return { ok: true, id };
  });
}

/**
 * Ends a grounding. One of airworthiness ends only by the entry of somebody entitled to certify it: name, certificate,
 * what was done; the chief records it. A hold of the school is the chief's to end, with what was done.
 */
export async function endGrounding(user: CurrentUser, form: unknown): Promise<Result<object>> {
  const parsed = EndGroundingForm.safeParse(form);
  if (!parsed.success) return zodProblems(parsed.error);
  const { groundingId, done, certifier, certificate } = parsed.data;
  if (!may.endGrounding(user)) return problem('', told('chief-releases'));
  return write(async (t): Promise<Result<object>> => {
    const found = await ask.endGrounding.one({ groundingId }, t);
    if (!found) return problem('', told('not-found-reload'));
    if (found.name !== null) return problem('', told('ended-meanwhile', { name: found.name }));
    if (found.kind === 'airworthiness') {
      const certified = z.object(Certified).safeParse({ certifier, certificate });
      if (!certified.success) return zodProblems(certified.error);
    }
    await GroundingEnds.insert(
      {
        id: randomUUID(),
        groundingId: groundingId,
        endedBy: user.id,
        endedAt: nowIso(),
        done,
        certifier: certifier || null,
        certificate: certificate || null,
      },
      t,
    );
    return { ok: true };
  });
}
