'use server';
import { redirect } from 'next/navigation';
import { z } from 'zod';
import { LogEntry } from '@/domain/recency';
import { createToken, endToken } from '@/server/api/tokens';
import { endSession, requireUser, sameOrigin, startSession } from '@/server/auth/session';
import { recordEvents, shareFlight } from '@/server/commands/capture';
import {
  acknowledgeBrief,
  chooseSchools,
  moveCheckout,
  openCheckout,
  saveBrief,
  saveBriefTemplate,
} from '@/server/commands/checkout';
import { adoptContent, saveContent } from '@/server/commands/content';
import { decidePower, saveAirframe, saveSight, saveTypeSheet } from '@/server/commands/hangar';
import {
  acknowledgeDebrief,
  assessSelf,
  decideFinding,
  overrule,
  saveDebrief,
  savePlan,
} from '@/server/commands/debrief';
import { logFlight, saveCertificate, savePilotCertificate, strikeFlight } from '@/server/commands/people';
import { saveEye, saveHours } from '@/server/commands/pilot';
import {
  addHeld,
  addPerson,
  endHeld,
  erasePerson,
  saveDate,
  saveRoles,
  takeBackImport,
  withdrawNote,
  writeNote,
} from '@/server/commands/persons';
import {
  book,
  cancelBooking,
  endAway,
  endFeed,
  joinWaiting,
  leaveWaiting,
  moveBooking,
  openFeed,
  saveAway,
  saveWindows,
} from '@/server/commands/schedule';
import { changePassword, checkSignIn, newFirstPassword } from '@/server/commands/session';
import { endGrounding, groundAirframe } from '@/server/commands/groundings';
import { acceptMeasures, releaseExceedance } from '@/server/commands/traces';
import { correctEntry, enterResult, voidEntry } from '@/server/commands/book';
import { answerOverride, askOverride, signCheckout, signNotYet, signPart } from '@/server/commands/sign';
import { seeNotices } from '@/server/notices';
import { whatIfOf } from '@/server/queries/people';
import { proposeSlots } from '@/server/queries/schedule';
import { may } from '@/server/auth/permissions';
import { problem, zodProblems } from '@/server/result';

/**
 * Thin: each action is one command for the signed-in user. Next refuses actions from another origin; so do we, once
 * more.
 */
const foreign = () => problem('', 'This came from another site and was not done.');

export async function signInAction(form: unknown) {
  if (!(await sameOrigin())) return foreign();
  const checked = await checkSignIn(form);
  if (!checked.ok) return checked;
  await startSession(checked.userId, checked.sessionVersion);
  return { ok: true as const };
}

export async function signOutAction() {
  await endSession();
  redirect('/sign-in');
}

export async function openCheckoutAction(form: unknown) {
  if (!(await sameOrigin())) return foreign();
  return openCheckout(await requireUser(), form);
}

export async function saveBriefAction(form: unknown) {
  if (!(await sameOrigin())) return foreign();
  return saveBrief(await requireUser(), form);
}

export async function acknowledgeBriefAction(briefId: string) {
  if (!(await sameOrigin())) return foreign();
  return acknowledgeBrief(await requireUser(), briefId);
}

export async function chooseSchoolsAction(form: unknown) {
  if (!(await sameOrigin())) return foreign();
  return chooseSchools(await requireUser(), form);
}

export async function saveBriefTemplateAction(form: unknown) {
  if (!(await sameOrigin())) return foreign();
  return saveBriefTemplate(await requireUser(), form);
}

export async function moveCheckoutAction(form: unknown) {
  if (!(await sameOrigin())) return foreign();
  return moveCheckout(await requireUser(), form);
}

export async function saveTypeSheetAction(form: unknown) {
  if (!(await sameOrigin())) return foreign();
  return saveTypeSheet(await requireUser(), form);
}

export async function saveAirframeAction(form: unknown) {
  if (!(await sameOrigin())) return foreign();
  return saveAirframe(await requireUser(), form);
}

export async function saveHoursAction(form: unknown) {
  if (!(await sameOrigin())) return foreign();
  return saveHours(await requireUser(), form);
}

export async function saveEyeAction(form: unknown) {
  if (!(await sameOrigin())) return foreign();
  return saveEye(await requireUser(), form);
}

export async function saveSightAction(form: unknown) {
  if (!(await sameOrigin())) return foreign();
  return saveSight(await requireUser(), form);
}

export async function createTokenAction(form: unknown) {
  if (!(await sameOrigin())) return foreign();
  return createToken(await requireUser(), form);
}

export async function endTokenAction(id: string) {
  if (!(await sameOrigin())) return foreign();
  return endToken(await requireUser(), id);
}

export async function signCheckoutAction(form: unknown) {
  if (!(await sameOrigin())) return foreign();
  return signCheckout(await requireUser(), form);
}

export async function signPartAction(form: unknown) {
  if (!(await sameOrigin())) return foreign();
  return signPart(await requireUser(), form);
}

export async function signNotYetAction(form: unknown) {
  if (!(await sameOrigin())) return foreign();
  return signNotYet(await requireUser(), form);
}

export async function askOverrideAction(form: unknown) {
  if (!(await sameOrigin())) return foreign();
  return askOverride(await requireUser(), form);
}

export async function answerOverrideAction(form: unknown) {
  if (!(await sameOrigin())) return foreign();
  return answerOverride(await requireUser(), form);
}

export async function voidEntryAction(form: unknown) {
  if (!(await sameOrigin())) return foreign();
  return voidEntry(await requireUser(), form);
}

export async function correctEntryAction(form: unknown) {
  if (!(await sameOrigin())) return foreign();
  return correctEntry(await requireUser(), form);
}

export async function enterResultAction(form: unknown) {
  if (!(await sameOrigin())) return foreign();
  return enterResult(await requireUser(), form);
}

export async function logFlightAction(form: unknown) {
  if (!(await sameOrigin())) return foreign();
  return logFlight(await requireUser(), form);
}

export async function strikeFlightAction(form: unknown) {
  if (!(await sameOrigin())) return foreign();
  return strikeFlight(await requireUser(), form);
}

export async function saveCertificateAction(form: unknown) {
  if (!(await sameOrigin())) return foreign();
  return saveCertificate(await requireUser(), form);
}

export async function saveContentAction(form: unknown) {
  if (!(await sameOrigin())) return foreign();
  return saveContent(await requireUser(), form);
}

export async function adoptContentAction(form: unknown) {
  if (!(await sameOrigin())) return foreign();
  return adoptContent(await requireUser(), form);
}

export async function savePilotCertificateAction(form: unknown) {
  if (!(await sameOrigin())) return foreign();
  return savePilotCertificate(await requireUser(), form);
}

/** One event from a page of the office, by the same door as the cockpit's. */
export async function recordEventAction(event: unknown) {
  if (!(await sameOrigin())) return foreign();
  const answer = await recordEvents(await requireUser(), [event]);
  const refused = answer.refused[0] ?? answer.held[0];
  return refused ? problem('', refused.message) : { ok: true as const };
}

export async function shareFlightAction(form: unknown) {
  if (!(await sameOrigin())) return foreign();
  return shareFlight(await requireUser(), form);
}

export async function acceptMeasuresAction(form: unknown) {
  if (!(await sameOrigin())) return foreign();
  return acceptMeasures(await requireUser(), form);
}

export async function groundAirframeAction(form: unknown) {
  if (!(await sameOrigin())) return foreign();
  return groundAirframe(await requireUser(), form);
}

export async function endGroundingAction(form: unknown) {
  if (!(await sameOrigin())) return foreign();
  return endGrounding(await requireUser(), form);
}

export async function releaseExceedanceAction(form: unknown) {
  if (!(await sameOrigin())) return foreign();
  return releaseExceedance(await requireUser(), form);
}

export async function decidePowerAction(form: unknown) {
  if (!(await sameOrigin())) return foreign();
  return decidePower(await requireUser(), form);
}

export async function overruleAction(form: unknown) {
  if (!(await sameOrigin())) return foreign();
  return overrule(await requireUser(), form);
}

export async function decideFindingAction(form: unknown) {
  if (!(await sameOrigin())) return foreign();
  return decideFinding(await requireUser(), form);
}

export async function assessSelfAction(form: unknown) {
  if (!(await sameOrigin())) return foreign();
  return assessSelf(await requireUser(), form);
}

export async function saveDebriefAction(form: unknown) {
  if (!(await sameOrigin())) return foreign();
  return saveDebrief(await requireUser(), form);
}

export async function savePlanAction(form: unknown) {
  if (!(await sameOrigin())) return foreign();
  return savePlan(await requireUser(), form);
}

export async function acknowledgeDebriefAction(debriefId: string) {
  if (!(await sameOrigin())) return foreign();
  return acknowledgeDebrief(await requireUser(), debriefId);
}

export async function saveDateAction(form: unknown) {
  if (!(await sameOrigin())) return foreign();
  return saveDate(await requireUser(), form);
}

export async function writeNoteAction(form: unknown) {
  if (!(await sameOrigin())) return foreign();
  return writeNote(await requireUser(), form);
}

export async function withdrawNoteAction(id: string) {
  if (!(await sameOrigin())) return foreign();
  return withdrawNote(await requireUser(), id);
}

export async function addPersonAction(form: unknown) {
  if (!(await sameOrigin())) return foreign();
  return addPerson(await requireUser(), form);
}

export async function saveRolesAction(form: unknown) {
  if (!(await sameOrigin())) return foreign();
  return saveRoles(await requireUser(), form);
}

export async function addHeldAction(form: unknown) {
  if (!(await sameOrigin())) return foreign();
  return addHeld(await requireUser(), form);
}

export async function endHeldAction(id: string) {
  if (!(await sameOrigin())) return foreign();
  return endHeld(await requireUser(), id);
}

export async function erasePersonAction(form: unknown) {
  if (!(await sameOrigin())) return foreign();
  return erasePerson(await requireUser(), form);
}

export async function takeBackImportAction(id: string) {
  if (!(await sameOrigin())) return foreign();
  return takeBackImport(await requireUser(), id);
}

export async function bookAction(form: unknown) {
  if (!(await sameOrigin())) return foreign();
  return book(await requireUser(), form);
}

export async function moveBookingAction(form: unknown) {
  if (!(await sameOrigin())) return foreign();
  return moveBooking(await requireUser(), form);
}

export async function cancelBookingAction(form: unknown) {
  if (!(await sameOrigin())) return foreign();
  return cancelBooking(await requireUser(), form);
}

export async function saveWindowsAction(form: unknown) {
  if (!(await sameOrigin())) return foreign();
  return saveWindows(await requireUser(), form);
}

export async function saveAwayAction(form: unknown) {
  if (!(await sameOrigin())) return foreign();
  return saveAway(await requireUser(), form);
}

export async function endAwayAction(form: unknown) {
  if (!(await sameOrigin())) return foreign();
  return endAway(await requireUser(), form);
}

export async function joinWaitingAction(form: unknown) {
  if (!(await sameOrigin())) return foreign();
  return joinWaiting(await requireUser(), form);
}

export async function leaveWaitingAction(id: string) {
  if (!(await sameOrigin())) return foreign();
  return leaveWaiting(await requireUser(), id);
}

export async function openFeedAction(alarmMin: number) {
  if (!(await sameOrigin())) return foreign();
  return openFeed(await requireUser(), alarmMin);
}

export async function endFeedAction() {
  if (!(await sameOrigin())) return foreign();
  return endFeed(await requireUser());
}

export async function seeNoticesAction() {
  if (!(await sameOrigin())) return foreign();
  return seeNotices(await requireUser());
}

export async function proposeSlotsAction(form: unknown) {
  return proposeSlots(await requireUser(), form);
}

const WhatIfForm = z.object({
  pilotId: z.string().min(1),
  onDate: z.iso.date('Give the day as year-month-day.'),
  planned: z
    .array(
      LogEntry.pick({ flownOn: true, typeCode: true, landings: true, fullStops: true, night: true, surface: true }),
    )
    .min(1, 'Add a flight.')
    .max(12, 'At most twelve flights.'),
});
/** Reads only: what a pilot would have after flying what is planned. */
export async function whatIfAction(form: unknown) {
  const user = await requireUser();
  const parsed = WhatIfForm.safeParse(form);
  if (!parsed.success) return zodProblems(parsed.error);
  if (!may.seePerson(user, parsed.data)) return problem('', 'There is nobody of this name for you to look at.');
  const wrong = parsed.data.planned.findIndex((p) => p.fullStops > p.landings);
  if (wrong >= 0) return problem(`planned.${wrong}.fullStops`, 'There cannot be more full stops than landings.');
  const answer = await whatIfOf(parsed.data.pilotId, parsed.data.planned, parsed.data.onDate);
  return answer ? { ok: true as const, ...answer } : problem('', 'There is nobody of this name for you to look at.');
}

export async function changePasswordAction(form: unknown) {
  if (!(await sameOrigin())) return foreign();
  const user = await requireUser();
  const changed = await changePassword(user, form);
  // This session goes on under the new version; every other one of the account has ended.
  if (changed.ok) await startSession(user.id, changed.sessionVersion);
  return changed;
}

export async function newFirstPasswordAction(userId: string) {
  if (!(await sameOrigin())) return foreign();
  return newFirstPassword(await requireUser(), userId);
}
