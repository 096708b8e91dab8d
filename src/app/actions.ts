'use server';
import { recordAtDesk } from '@/server/fly/commands/office';
import { told as peopleTold } from '@/server/people/sentences';
import { headers } from 'next/headers';
import { redirect } from 'next/navigation';
import { WhatIfForm } from '@/domain/log-form';
import { createToken, endToken } from '@/server/account/commands/tokens';
import { endSession, sameOrigin, sessionId, startSession } from '@/server/floor/auth/session';
import { shareFlight } from '@/server/fly/commands/capture';
import {
  acknowledgeBrief,
  chooseSchools,
  moveCheckout,
  swapAeroplane,
  openCheckout,
  saveBrief,
  saveBriefTemplate,
} from '@/server/checkout/commands/checkout';
import { addAerodrome, makeFirstChief, setUpPlace } from '@/server/running/commands/set-up';
import { adoptContent, saveContent } from '@/server/rules/commands/content';
import {
  addAeroplane,
  decidePower,
  saveAirframe,
  saveSight,
  saveTrialResult,
  saveTypeSheet,
} from '@/server/hangar/commands/hangar';
import {
  discardTypeDraft,
  keepTypeDraft,
  rebaseTypeDraft,
  saveTypeDraft,
  startTypeDraft,
} from '@/server/hangar/commands/drafts';
import {
  acknowledgeDebrief,
  assessSelf,
  decideFinding,
  overrule,
  saveDebrief,
  savePlan,
} from '@/server/debrief/commands/debrief';
import { logFlight, saveCertificate, savePilotCertificate, strikeFlight } from '@/server/people/commands/people';
import { saveEye, saveHours } from '@/server/people/commands/pilot';
import {
  addHeld,
  addPeople,
  addPerson,
  endHeld,
  erasePerson,
  openAccount,
  saveDate,
  saveRoles,
  takeBackImport,
  withdrawNote,
  writeNote,
} from '@/server/people/commands/persons';
import { book, cancelBooking, moveBooking } from '@/server/schedule/commands/bookings';
import { endAway, saveAway, saveWindows } from '@/server/schedule/commands/times';
import { endFeed, openFeed } from '@/server/schedule/commands/feed';
import { joinWaiting, leaveWaiting } from '@/server/schedule/commands/waiting';
import { changePassword, checkSignIn, endSessions, newFirstPassword } from '@/server/account/commands/session';
import { makeLink, spendLink } from '@/server/account/commands/links';
import {
  beginSecondFactor,
  confirmSecondFactor,
  endSecondFactor,
  saveFactorRoles,
  takeSecondFactor,
} from '@/server/account/commands/second-factor';
import { endGrounding, groundAirframe } from '@/server/hangar/commands/groundings';
import { joinRecordings } from '@/server/traces/commands/join';
import { acceptMeasures, releaseExceedance } from '@/server/traces/commands/traces';
import { correctEntry, enterResult, voidEntry } from '@/server/ledger/commands/entries';
import { answerOverride, askOverride, signCheckout, signNotYet, signPart } from '@/server/ledger/commands/sign';
import { Id, act, actBeforeFactor, through } from '@/server/door/action';
import { addressOf } from '@/server/door/address';
import { seeNotices } from '@/server/account/commands/notices';
import { whatIfOf } from '@/server/people/queries/what-if';
import { proposeSlots } from '@/server/schedule/queries/slots';
import { addSchoolItem, takeProgramme } from '@/server/checkout/commands/programmes';
import { openElsewhere } from '@/server/checkout/queries/elsewhere';
import { may } from '@/server/floor/auth/permissions';
import { problem, zodProblems, NOT_FOUND } from '@/server/floor/result';

/** Thin: each action is one command for the signed-in user, through the one door of `act`. */
const signedIn = async (form: unknown) => {
  const checked = await checkSignIn(form, addressOf(await headers()));
  if (!checked.ok) return checked;
  await startSession(checked.userId, checked.sessionVersion);
  return { ok: true as const };
};
export async function signInAction(form: unknown) {
  return through([form], undefined, ([f]) => signedIn(f));
}

/** By the printed link, by whoever has it: there is nobody yet to be signed in. */
const firstChief = async (token: string, form: unknown) => {
  const made = await makeFirstChief(token, form, addressOf(await headers()));
  if (!made.ok) return made;
  await startSession(made.userId, made.sessionVersion);
  return { ok: true as const };
};
export async function firstChiefAction(token: string, form: unknown) {
  return through([token, form] as [string, unknown], Id, ([t, f]) => firstChief(t, f));
}

/** By a one-time link, by whoever has it. */
const chosen = async (token: string, form: unknown) => {
  const used = await spendLink(token, form, addressOf(await headers()));
  if (!used.ok) return used;
  if (!used.factor) await startSession(used.userId, used.sessionVersion);
  return { ok: true as const, factor: used.factor };
};
export async function spendLinkAction(token: string, form: unknown) {
  return through([token, form] as [string, unknown], Id, ([t, f]) => chosen(t, f));
}
export const makeLinkAction = act(makeLink, Id);
export const beginSecondFactorAction = actBeforeFactor(beginSecondFactor);
export const confirmSecondFactorAction = actBeforeFactor(confirmSecondFactor);
export const endSecondFactorAction = act(endSecondFactor);
export const takeSecondFactorAction = act(takeSecondFactor, Id);
export const saveFactorRolesAction = act(saveFactorRoles);
export const endMySessionAction = act((user, id: string) => endSessions(user, id, null), Id);
export const endOtherSessionsAction = act(async (user) => endSessions(user, null, await sessionId()));
export const setUpPlaceAction = act(setUpPlace);
export const addAerodromeAction = act(addAerodrome);

export async function signOutAction() {
  if (await sameOrigin()) await endSession();
  redirect('/sign-in');
}
export const openCheckoutAction = act(openCheckout);
export const openElsewhereAction = act(async (user, form: unknown) => {
  const elsewhere = await openElsewhere(user, form);
  return elsewhere ? { ok: true as const, elsewhere } : problem('', NOT_FOUND);
});
export const saveBriefAction = act(saveBrief);
export const acknowledgeBriefAction = act(acknowledgeBrief, Id);
export const chooseSchoolsAction = act(chooseSchools);
export const saveBriefTemplateAction = act(saveBriefTemplate);
export const moveCheckoutAction = act(moveCheckout);
export const addSchoolItemAction = act(addSchoolItem);
export const takeProgrammeAction = act(takeProgramme);
export const swapAeroplaneAction = act(swapAeroplane);
export const saveTypeSheetAction = act(saveTypeSheet);
export const startTypeDraftAction = act(startTypeDraft);
export const keepTypeDraftAction = act(keepTypeDraft);
export const saveTypeDraftAction = act(saveTypeDraft);
export const rebaseTypeDraftAction = act(rebaseTypeDraft);
export const discardTypeDraftAction = act(discardTypeDraft);
export const addAeroplaneAction = act(addAeroplane);
export const saveAirframeAction = act(saveAirframe);
export const saveHoursAction = act(saveHours);
export const saveEyeAction = act(saveEye);
export const saveSightAction = act(saveSight);
export const saveTrialResultAction = act(saveTrialResult);
export const createTokenAction = act(createToken);
export const endTokenAction = act(endToken, Id);
export const signCheckoutAction = act(signCheckout);
export const signPartAction = act(signPart);
export const signNotYetAction = act(signNotYet);
export const askOverrideAction = act(askOverride);
export const answerOverrideAction = act(answerOverride);
export const voidEntryAction = act(voidEntry);
export const correctEntryAction = act(correctEntry);
export const enterResultAction = act(enterResult);
export const logFlightAction = act(logFlight);
export const strikeFlightAction = act(strikeFlight);
export const saveCertificateAction = act(saveCertificate);
export const saveContentAction = act(saveContent);
export const adoptContentAction = act(adoptContent);
export const savePilotCertificateAction = act(savePilotCertificate);

/** Something said of a flight at a desk, by the same rules as from the cockpit. */
export const deskEventAction = act(recordAtDesk);
export const shareFlightAction = act(shareFlight);
export const acceptMeasuresAction = act(acceptMeasures);
export const joinRecordingsAction = act(joinRecordings);
export const groundAirframeAction = act(groundAirframe);
export const endGroundingAction = act(endGrounding);
export const releaseExceedanceAction = act(releaseExceedance);
export const decidePowerAction = act(decidePower);
export const overruleAction = act(overrule);
export const decideFindingAction = act(decideFinding);
export const assessSelfAction = act(assessSelf);
export const saveDebriefAction = act(saveDebrief);
export const savePlanAction = act(savePlan);
export const acknowledgeDebriefAction = act(acknowledgeDebrief, Id);
export const saveDateAction = act(saveDate);
export const writeNoteAction = act(writeNote);
export const withdrawNoteAction = act(withdrawNote, Id);
export const addPersonAction = act(addPerson);
export const addPeopleAction = act(addPeople);
export const openAccountAction = act(openAccount);
export const saveRolesAction = act(saveRoles);
export const addHeldAction = act(addHeld);
export const endHeldAction = act(endHeld, Id);
export const erasePersonAction = act(erasePerson);
export const takeBackImportAction = act(takeBackImport, Id);
export const bookAction = act(book);
export const moveBookingAction = act(moveBooking);
export const cancelBookingAction = act(cancelBooking);
export const saveWindowsAction = act(saveWindows);
export const saveAwayAction = act(saveAway);
export const endAwayAction = act(endAway);
export const joinWaitingAction = act(joinWaiting);
export const leaveWaitingAction = act(leaveWaiting, Id);
export const openFeedAction = act(openFeed);
export const endFeedAction = act(endFeed);
export const seeNoticesAction = act(seeNotices);
export const proposeSlotsAction = act(proposeSlots);

/** Reads only: what a pilot would have after flying what is planned. */
export const whatIfAction = act(async (user, form: unknown) => {
  const parsed = WhatIfForm.safeParse(form);
  if (!parsed.success) return zodProblems(parsed.error);
  if (!may.seePerson(user, parsed.data)) return problem('', NOT_FOUND);
  const wrong = parsed.data.planned.findIndex((p) => p.fullStops > p.landings);
  if (wrong >= 0) return problem(`planned.${wrong}.fullStops`, peopleTold('more-full-stops'));
  const answer = await whatIfOf(parsed.data.pilotId, parsed.data.planned, parsed.data.onDate);
  return answer ? { ok: true as const, ...answer } : problem('', NOT_FOUND);
});
export const changePasswordAction = act(async (user, form: unknown) => {
  const changed = await changePassword(user, form);
  // This session goes on under the new version; every other one of the account has ended.
  if (changed.ok) await startSession(user.id, changed.sessionVersion);
  return changed;
});
export const newFirstPasswordAction = act(newFirstPassword, Id);
