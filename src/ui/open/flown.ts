/** What the page shows of a pilot's hours in one type or kind. */
export interface PilotHours {
  typeCode: string;
  typeName: string;
  hours: number;
  pic: number | null;
  lastFlown: string;
  enteredBy: string;
  since: number;
  office: { hours: number; pic: number | null; lastFlown: string } | null;
  here: { hours: number; landings: number; about: boolean };
}
/** A type of the logbook that the hangar does not have. */
export interface WrittenHours {
  name: string;
  hours: number;
  lastFlown: string;
  engines: number;
  tailwheel: boolean;
  water: boolean;
}
