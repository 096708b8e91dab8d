import type { Goal, Role } from '@/domain/words';

/** The one place that decides who may do what. Roles are a set; nobody acts as instructor on their own checkout. */
export interface CurrentUser {
  id: string;
  name: string;
  email: string;
  roles: Role[];
  /** The pilot this user is, when they are one. */
  pilotId: string | null;
  authorised: Goal[];
  massKg: number;
  ownCrosswindKt: number | null;
  /** As printed in an entry, and the last day of it or of recent experience. */
  certificate: string;
  certificateUntil: string | null;
}
export interface OwnedByPilot {
  pilotId: string;
}

const staff = (user: CurrentUser): boolean => user.roles.includes('instructor') || user.roles.includes('chief');
const own = (user: CurrentUser, thing: OwnedByPilot): boolean =>
  user.pilotId !== null && user.pilotId === thing.pilotId;

/** How a person stands in the schedule: as a pilot where there is one, so that nobody is in two seats at once. */
export const personKey = (user: { id: string; pilotId: string | null }): string =>
  user.pilotId !== null ? `p:${user.pilotId}` : `u:${user.id}`;

export const may = {
  /** Board, lists of all pilots, the whole ledger. */
  seeEverybody: (user: CurrentUser): boolean => staff(user),
  openCheckouts: (user: CurrentUser): boolean => user.roles.includes('instructor'),
  openCheckoutFor: (user: CurrentUser, thing: OwnedByPilot): boolean =>
    user.roles.includes('instructor') && !own(user, thing),
  viewCheckout: (user: CurrentUser, thing: OwnedByPilot): boolean => staff(user) || own(user, thing),
  /** Brief, capture, observe, waive: as an instructor, and never on one's own checkout. */
  runCheckout: (user: CurrentUser, thing: OwnedByPilot): boolean =>
    user.roles.includes('instructor') && !own(user, thing),
  /** Hours by type, eye heights: entered by staff, never for oneself. */
  keepPilotRecord: (user: CurrentUser, thing: OwnedByPilot): boolean => staff(user) && !own(user, thing),
  acknowledgeBrief: (user: CurrentUser, thing: OwnedByPilot): boolean => own(user, thing),
  acknowledgeDebrief: (user: CurrentUser, thing: OwnedByPilot): boolean => own(user, thing),
  /** The pilot's own three taps; an instructor may tap what the pilot says. */
  assessSelf: (user: CurrentUser, thing: OwnedByPilot): boolean =>
    own(user, thing) || (user.roles.includes('instructor') && !own(user, thing)),
  /** How instructors judge the same measured landings. */
  compareInstructors: (user: CurrentUser): boolean => user.roles.includes('chief'),
  signCheckout: (user: CurrentUser, thing: OwnedByPilot): boolean =>
    user.roles.includes('instructor') && !own(user, thing),
  /** Type sheets, airframes, house order of a brief. */
  changeHouse: (user: CurrentUser): boolean => user.roles.includes('chief'),
  /** A limit passed: a chief who neither flew it nor taught it says that what must be done is done. */
  releaseExceedance: (user: CurrentUser, thing: OwnedByPilot & { instructorId: string }): boolean =>
    user.roles.includes('chief') && !own(user, thing) && user.id !== thing.instructorId,
  /** Out of service for a finding: the staff; a hold of the school: the chief. */
  ground: (user: CurrentUser, kind: 'airworthiness' | 'school'): boolean =>
    kind === 'school' ? user.roles.includes('chief') : staff(user),
  /** Back into service, as certified: the chief records it. */
  endGrounding: (user: CurrentUser): boolean => user.roles.includes('chief'),
  /** A limit of the school set aside for one flight; never on the chief's own. */
  overrideSchoolLimit: (user: CurrentUser, thing: OwnedByPilot): boolean =>
    user.roles.includes('chief') && !own(user, thing),
  /** An item signed without its evidence: asked for as the instructor, answered by a chief who is not the pilot. */
  askOverride: (user: CurrentUser, thing: OwnedByPilot): boolean =>
    user.roles.includes('instructor') && !own(user, thing),
  answerOverride: (user: CurrentUser, thing: OwnedByPilot): boolean =>
    user.roles.includes('chief') && !own(user, thing),
  /** By a further entry; the chief, never on one's own. */
  voidEntry: (user: CurrentUser, thing: OwnedByPilot): boolean => user.roles.includes('chief') && !own(user, thing),
  /** A slip of the pen corrected by a further entry: the chief, or who signed it. */
  correctEntry: (user: CurrentUser, thing: OwnedByPilot & { signerId: string }): boolean =>
    !own(user, thing) &&
    (user.roles.includes('chief') || (user.roles.includes('instructor') && user.id === thing.signerId)),
  /** What the examiner decided, as shown on paper to the instructor or the office. */
  enterResult: (user: CurrentUser, thing: OwnedByPilot): boolean => staff(user) && !own(user, thing),
  /** Flying of one's own, or entered by the office. */
  logFlying: (user: CurrentUser, thing: OwnedByPilot): boolean => own(user, thing) || user.roles.includes('chief'),
  exportRecord: (user: CurrentUser, thing: OwnedByPilot): boolean => own(user, thing) || staff(user),
  /** One person's page: the staff, and that person. */
  seePerson: (user: CurrentUser, thing: OwnedByPilot): boolean => staff(user) || own(user, thing),
  /** New people, roles, authorisations, what is held; closing an account and erasing. */
  keepPeople: (user: CurrentUser): boolean => user.roles.includes('chief'),
  /** Medical and other dates, shown to the staff; nobody enters their own. */
  keepDates: (user: CurrentUser, thing: OwnedByPilot): boolean => staff(user) && !own(user, thing),
  writeNote: (user: CurrentUser, thing: OwnedByPilot): boolean => staff(user) && !own(user, thing),
  readNote: (user: CurrentUser, note: { visible: string; authorId: string } & OwnedByPilot): boolean =>
    note.visible === 'pilot'
      ? staff(user) || own(user, note)
      : !own(user, note) &&
        (note.visible === 'staff' ? staff(user) : user.roles.includes('chief') || user.id === note.authorId),
  /** A logbook read in: one's own, or by the chief. */
  importLogbook: (user: CurrentUser, thing: OwnedByPilot): boolean => own(user, thing) || user.roles.includes('chief'),
  /** The chief, never of oneself: somebody must stay who can answer for it. */
  erasePerson: (user: CurrentUser, thing: OwnedByPilot): boolean => user.roles.includes('chief') && !own(user, thing),
  /** Book, move, cancel: the staff for anybody; a pilot what is their own. */
  book: (user: CurrentUser, thing: { pilotId: string | null }): boolean =>
    staff(user) || (user.pilotId !== null && user.pilotId === thing.pilotId),
  /** Take an aeroplane out of the line, and bring it back. */
  keepFleetDown: (user: CurrentUser): boolean => staff(user),
  /** Weekly windows and times away: one’s own, or the chief for anybody. */
  keepWindows: (user: CurrentUser, person: string): boolean =>
    user.roles.includes('chief') || person === personKey(user),
  /** Certificates and their dates. */
  keepCertificates: (user: CurrentUser): boolean => user.roles.includes('chief'),
  /** The whole ledger as a file. */
  exportBook: (user: CurrentUser): boolean => staff(user),
  viewLedgerEntry: (user: CurrentUser, thing: OwnedByPilot): boolean => staff(user) || own(user, thing),
};
