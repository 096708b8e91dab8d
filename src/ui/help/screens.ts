/**
 * What each screen is for, in five lines: the first says what it is, the last what it does not do or what outranks it.
 * Words between asterisks stand on that screen; a test holds them to it, and every page to a screen here.
 */
export interface ScreenHelp {
  key: string;
  title: string;
  lines: readonly [string, string, string, string, string];
  /** The page of the guide that goes further. */
  guide?: 'open' | 'brief' | 'fly' | 'debrief' | 'sign' | 'people' | 'hangar' | 'start';
}

const S = (key: string, title: string, guide: ScreenHelp['guide'], lines: ScreenHelp['lines']): ScreenHelp =>
  guide === undefined ? { key, title, lines } : { key, title, guide, lines };

const HOME = S('home', 'Home', 'start', [
  'Your next booking, the one thing to do before it, and where you stand.',
  'Read the brief and acknowledge it: your instructor sees that you have.',
  'After a flight your own assessment comes first, three taps; then the record is shown beside it.',
  '*Findings* each have an exercise; what expires is said with its day.',
  'Medical, licence and recency are yours to know: this page reminds you, it does not release you.',
]);
const CHECKOUT: [RegExp, ScreenHelp][] = [
  [
    /\/brief$/,
    S('brief', 'Brief', 'brief', [
      'Speeds, runway, crosswind, mass and distances of the day, from the type sheet and what you type.',
      'Paste the *METAR* or enter the wind observed; the runway follows the wind until you choose one.',
      'A letter beside a number is its source: touch it for the reference.',
      '*Arrange* moves and hides sections; *Save brief* keeps a version the pilot reads and acknowledges.',
      'Gates are what the sheet and today’s mass give; the flight manual and the placards outrank them.',
    ]),
  ],
  [
    /\/fly$/,
    S('fly', 'Fly', 'fly', [
      'What is to be flown, and the device that records it.',
      '*Prepare this device* while there is a network: after that it records without one.',
      'In the cockpit a landing is three taps: clean or what was seen, who flew it, *Save landing*.',
      'Eyes out on final: the screen asks for nothing until you stop or climb away.',
      'What you did not see stays not seen. It is not judged, and it never counts as good.',
    ]),
  ],
  [
    /\/debrief$/,
    S('debrief', 'Debrief', 'debrief', [
      'The lesson as it was recorded, after the pilot has said how it went.',
      'Best and weakest landing first, then what changed, what was good and what to work on.',
      'Each finding names its landings: open them, then confirm, dismiss or add your own.',
      'A verdict can be overruled with a reason; the computed one stays in sight.',
      'Choose at most two things to work on: they become the next lesson’s first exercises.',
    ]),
  ],
  [
    /\/progress$/,
    S('progress', 'All lessons', 'debrief', [
      'Every landing and manoeuvre of this checkout, lesson by lesson.',
      'Touchdowns are drawn where they were: measured by a recording, or judged by eye.',
      'Bars show how many landings were unassisted and within the standard.',
      'Few landings say little: below that the page shows counts and no trend.',
      'Demonstrations and landings flown past a stop are shown and never counted as evidence.',
    ]),
  ],
  [
    /\/sign$/,
    S('sign', 'Sign', 'sign', [
      'Criteria against lessons: what is met, and what is still missing before you can sign.',
      'Touch a cell for the landings or items behind it.',
      'An item can be waived with a reason, or overridden by the chief instructor: both are printed.',
      'Read the *Sign-off text* aloud: it names the regulation, the limits and you.',
      'The entry is signed and chained. It is corrected or voided by another entry, never changed.',
    ]),
  ],
  [
    /\/plan$/,
    S('plan', 'Lesson plan', 'debrief', [
      'The next lesson from what is open and what was found, in the order of the programme.',
      'Each block names what it is for: an open item, a finding, something that fades.',
      'Change the order, leave blocks out, add your own; *Save plan* keeps a version.',
      'Times are those of your own lessons; the wind asked for is compared with the booking.',
      'A proposal: weather, fuel and the pilot in front of you decide.',
    ]),
  ],
  [
    /\/differences$/,
    S('differences', 'Habits to drop', 'open', [
      'What the pilot’s hands will do out of habit that this aeroplane does not forgive.',
      'Ranked by what it costs here and by how many hours trained the habit.',
      'Each habit has its numbers from both types: the old one beside the new one.',
      'The first ones stand on the card and are looked for in the findings.',
      'Hours are what was entered or logged: check *Hours by type* when a rank surprises you.',
    ]),
  ],
];
const CHECKOUT_HOME = S('checkout', 'Checkout', 'open', [
  'Where this checkout stands: evidence item by item, open findings, the next lesson.',
  'The bar at the top leads through Open, Brief, Fly, Debrief and Sign; [ and ] do the same.',
  '*Technique choices* are how your school teaches it: cues, gates and judging follow them.',
  '*PIC and logging* says who acts, who logs what, and why.',
  'It keeps the versions of rules and sheets it was opened under; a newer one is offered, never slipped in.',
]);

const PATHS: [RegExp, ScreenHelp][] = [
  [
    /^\/checkouts\/new/,
    S('open', 'Open a checkout', 'open', [
      'Choose the pilot, the aeroplane, the rules and what it is for.',
      '*Requirements* compare what the aeroplane needs with what the pilot has.',
      'The page says who is pilot in command, who logs what, and who decides at the end.',
      'What is not known is asked, not assumed: enter hours and dates as you read them.',
      'Rule packs are a reading of the law. The current text and your authority’s wording govern.',
    ]),
  ],
  [
    /^\/checkouts$/,
    S('checkouts', 'Checkouts', 'start', [
      'Every checkout, open ones first, the latest flown on top.',
      'Filter by name, registration or goal; filters apply at once.',
      'A row leads to where the checkout stands.',
      'n opens a new one.',
      'Signed checkouts stay with their evidence; what they prove is in the *Ledger*.',
    ]),
  ],
  [
    /^\/hangar\/(new|[^/]+\/edit|[^/]+\/[^/]+\/edit)/,
    S('type-edit', 'Type sheet, being written', 'hangar', [
      'A type in the order of its flight manual, or one aeroplane as a difference from its type.',
      'Give each number the page you read it on; what is missing in a step is listed beside it.',
      'The draft is kept as you type, also on this device without a network.',
      '*Consistency check* compares the numbers with each other and says which do not fit.',
      'A number from a sample is marked ? until somebody has confirmed it from the manual.',
    ]),
  ],
  [
    /^\/hangar\/[^/]+/,
    S('type', 'Type sheet', 'hangar', [
      'Everything briefs and limits of this type are computed from, each number with its source.',
      'Speeds are of the dial, in its unit; masses and arms in kg and m.',
      '*Consistency check* says what the numbers say about each other.',
      'A change makes a new version: open checkouts keep theirs until you move them.',
      'The flight manual in the aeroplane outranks the sheet. Where they differ, correct the sheet.',
    ]),
  ],
  [
    /^\/hangar$/,
    S('hangar', 'Hangar', 'hangar', [
      'The types of the school and the aeroplanes of each.',
      'A type sheet feeds the brief; an aeroplane differs from its type only where you say so.',
      'Grounded aeroplanes say why, and since when; they cannot be taken.',
      '*New type* starts from a sample of its kind, from a type you have, or from a file.',
      'Weighing, placards and the technical log are in the aeroplane. Copy them, do not guess them.',
    ]),
  ],
  [
    /^\/people\/(new|import)|^\/people\/[^/]+\/import/,
    S('people-new', 'People and logbooks', 'people', [
      'One person, a list of people from a file, or a logbook read in.',
      'Columns are recognised by their names; say what the others are, and look at the preview.',
      'What is there twice is recognised and added once; what cannot be read is named by row.',
      'An account opens by a link that works once: hand it over, or send it.',
      'An imported logbook is what the pilot wrote. It counts for recency and is marked as imported.',
    ]),
  ],
  [
    /^\/people\/standard/,
    S('standard', 'Instructor standardisation', 'people', [
      'Landings judged by eye and measured by a recording, instructor by instructor.',
      'The measurement is the same for all, so differences come from the eye.',
      'Each criterion is shown with how many landings it rests on.',
      'Few landings say nothing: they are shown as counts.',
      'A start for a talk among instructors, not a mark.',
    ]),
  ],
  [
    /^\/people\/[^/]+/,
    S('person', 'Person', 'people', [
      'What this person holds, what runs out and when, hours by type, checkouts and notes.',
      'Each line of recency says what it hangs on and the least flying that restores it.',
      '*What if* shows the lines as they would be after flights you enter; nothing is saved.',
      'Staff enter dates and ratings, never their own.',
      'Certificates and medicals are shown as they were entered. Look at the paper.',
    ]),
  ],
  [
    /^\/people$/,
    S('people', 'People', 'people', [
      'Who is current, until when, on the day you choose.',
      'A mark is the worst of its lines; hold the pointer on it for all of them.',
      'The lower table says who may teach what by the school’s own rules.',
      'Nothing on record is not the same as expired: it is said as that.',
      'Counted from flights recorded, logged and imported here; flights elsewhere count when they are logged.',
    ]),
  ],
  [
    /^\/schedule\/times/,
    S('times', 'Availability', 'people', [
      'Weekly times of each instructor, who is away, and which aeroplanes are out of service.',
      'Outside these times nobody can be booked.',
      'Bookings that a time away hits are marked: they must be moved.',
      'A time away ends on its day, or when you end it.',
      'A grounding is placed and ended in the hangar, by who may.',
    ]),
  ],
  [
    /^\/schedule/,
    S('schedule', 'Schedule', 'people', [
      'The week by day, or one day by instructor or aeroplane.',
      'Drag a booking, or Space and the arrows: a conflict says why, and offers the nearest free time.',
      'Length comes from the lesson planned: brief, preparation, flight, debrief.',
      'Crosswind bars and marks are of the forecast for the runway, with how sure it is.',
      'Nobody is in two places: pilot, instructor and aeroplane are each held for the booking.',
    ]),
  ],
  [
    /^\/traces\/new/,
    S('recording-new', 'Add a recording', 'debrief', [
      'A file of a panel or a tablet: CSV, GPX, IGC, KML or NMEA, also compressed.',
      'Columns without a known name are asked for once and remembered by their header.',
      'The preview is made on this device before anything is sent.',
      'Touchdowns are joined to the landings you tapped, by time and order.',
      'Circuits away from the briefed aerodrome are read where they were flown, and said as that.',
    ]),
  ],
  [
    /^\/traces\/[^/]+/,
    S('recording', 'Recording', 'debrief', [
      'What was flown, replayed: events, touchdowns, gates, loads and limits.',
      'Two recorders of one flight are joined here: each quantity from the one that shows it better.',
      'Measured values replace what was judged by eye where both are of the same landing.',
      'An exceedance grounds the aeroplane until the inspection is entered.',
      'Height and place are as good as the sensor: what it cannot tell is left open.',
    ]),
  ],
  [
    /^\/traces/,
    S('recordings', 'Recordings', 'debrief', [
      'Tracks of panels and tablets, each with what was found in it.',
      'A recording belongs to the lesson it was flown in.',
      '*Add a recording* reads a file and shows what it found before it is kept.',
      'Exceedances lead to what must be done and who has certified it.',
      'The file is kept as it came; the analysis can be made again from it.',
    ]),
  ],
  [
    /^\/ledger\/[^/]+/,
    S('entry', 'Entry of the ledger', 'sign', [
      'One signed entry: the words, the limits, and the evidence it rests on.',
      'PDF and JSON carry the code by which anybody checks it at *Verify*.',
      'A slip of the pen is corrected by a further entry; a wrong sign-off is voided by one.',
      'Later entries about it stand here.',
      'What counts for the law is the logbook entry your regulation asks for.',
    ]),
  ],
  [
    /^\/ledger/,
    S('ledger', 'Sign-off ledger', 'sign', [
      'Every sign-off, recommendation, part, void and correction, in the order they were signed.',
      'Search by name, registration or text; filter by kind and days.',
      'Each entry carries the hash of the one before: the page says whether the whole chain verifies.',
      'Export it whole as JSON, or what you found as CSV.',
      'Entries are added, never changed.',
    ]),
  ],
  [
    /^\/rules\/[^/]+\/[^/]+\/edit/,
    S('rules-edit', 'Rules, being changed', 'hangar', [
      'A programme, a standard or the school’s rules, as a new version.',
      'The difference to the version before is shown while you write.',
      'Give the reason: it stays with the version.',
      'Open checkouts keep the version they were opened under.',
      'What the law asks is not softened here: a school’s rule can only ask for more.',
    ]),
  ],
  [
    /^\/rules/,
    S('rules', 'Rules and programmes', 'hangar', [
      'Rule packs, programmes, standards and school rules, each in versions.',
      'Items name their regulation; *confirm* marks what your authority should be asked about.',
      'A programme says what evidence each item wants.',
      'Export one, change it in a file, and read it back.',
      'A pack is a reading of the law, with the date of the text: the current text governs.',
    ]),
  ],
  [
    /^\/lab\/circuit/,
    S('lab-circuit', 'Pace of the circuit', undefined, [
      'A circuit flown by the numbers of the sheet: seconds, turns, heights, leg by leg.',
      'Wind and runway come from the brief when you open it from a checkout.',
      '*Engine failure now: where?* shows what is within gliding range at each moment.',
      'The address keeps what you set: send it, and others see the same.',
      'A model with its *Assumptions*. It is no clearance to turn back.',
    ]),
  ],
  [
    /^\/lab\/ground/,
    S('lab-ground', 'Straight or swerving', undefined, [
      'A swerve on the runway, and what your feet make of it: early, late, continuous, or none.',
      'Set speed, wind, surface and tail; the sentence on top and the picture follow.',
      '*Compare* puts two settings, or two types, beside each other.',
      '*Taxi and the tail* is the corner: what the wheels and the tail do, by two ways of steering.',
      'A model with what it *Assumed*: look out, and stop when you cannot see.',
    ]),
  ],
  [
    /^\/lab\/take-off/,
    S('lab-take-off', 'Take-off roll', undefined, [
      'From a standstill to lift-off: power at once or fed in, and the foot that leads it, follows, or is missing.',
      'The bars show power and speed as it is played; the line across the path is where the tail comes up.',
      'The table says how much of the foot power and wind ask for, from either side.',
      '*Compare* puts the other technique, or the type known from before, beside it.',
      'A model with what it *Assumed*. Close the throttle at the first swing that grows.',
    ]),
  ],
  [
    /^\/lab\/touch/,
    S('lab-touch', 'The touch', undefined, [
      'A landing from the last feet to the roll: sink, load, skip and bounce.',
      'Choose attitude, speed and sink, and what the hands do; play it, or step through it.',
      'Firmness is in the words of the type, or the usual ones.',
      'A finding leads here with what was measured of that pilot.',
      'A model with what it *Assumed*. After a second bounce: go around.',
    ]),
  ],
  [
    /^\/lab\/crosswind/,
    S('lab-crosswind', 'Crosswind', undefined, [
      'Every limit and the wind on one scale, and what holds it: bank, rudder, aileron.',
      'What comes near the ground at that bank is measured from the sheet.',
      'The table has nose, bank and controls by height.',
      'Below it, *Controls while taxiing*: turn the aeroplane under the wind.',
      'A limit on this page is a limit; the model is not a permission.',
    ]),
  ],
  [
    /^\/lab\/side-picture/,
    S('lab-side', 'Side picture', undefined, [
      'Where the runway lies in the side window on downwind, from this seat and eye.',
      'Set spacing and height; the part it lies on is named.',
      'It says how far behind the wing base is turned.',
      'From a checkout it is the eye of that pilot, where it was measured.',
      'A picture to talk about before the flight: judge it with the wings level.',
    ]),
  ],
  [
    /^\/lab\/slip/,
    S('lab-slip', 'Slip', undefined, [
      'Height lost in a slip, and its path beside the unslipped one.',
      'Set speed, how much slip, flap and the bank of the final turn.',
      'The bars show which wing stalls first with the wrong foot, and which way it rolls.',
      'What the flight manual says of slips is in the numbers used.',
      'No big slips low. The model is no permission to spin.',
    ]),
  ],
  [
    /^\/lab\/slow-approach/,
    S('lab-slow', 'Slow approach', undefined, [
      'How slowly an approach can still be flared, from trials at a safe height.',
      'Enter trials, or use those captured in flight; it says which next one tells most.',
      'There is no answer before the trials support one.',
      'The height below which an engine stop cannot be flared is always shown.',
      'A trial result is no gate until the chief puts it on the sheet.',
    ]),
  ],
  [
    /^\/lab\/sight-picture/,
    S('lab-sight', 'Picture over the nose', undefined, [
      'What is seen over this nose from this eye, on the ground and on the approach.',
      'Set seat, eye height, runway width and slope; the picture follows.',
      'Two pictures can be put beside each other: the type known, and the new one.',
      'Measured eyes are kept with the pilot; before that it is an estimate, and says so.',
      'A picture to talk about before the flight, not one to land by.',
    ]),
  ],
  [
    /^\/lab\/recorder/,
    S('lab-recorder', 'Recorder', undefined, [
      'Invented flights with known touchdowns, as a panel or a tablet would record them.',
      'Choose what is flown, the wind and the sensors; take the file.',
      'Read it in as a recording and see what the analysis finds.',
      'What it finds and what was flown are shown side by side.',
      'For trying: nothing of it goes into a checkout by itself.',
    ]),
  ],
  [
    /^\/lab/,
    S('lab', 'Lab', undefined, [
      'Models to try on the ground, each with its assumptions.',
      'From a checkout they open with its numbers; from here with those of a type.',
      'What you set is kept in the address.',
      'Every drawing has its facts as text beside it.',
      'A model explains. The flight manual and the instructor decide.',
    ]),
  ],
  [
    /^\/settings\/aerodrome/,
    S('aerodrome', 'Another aerodrome', 'start', [
      'An aerodrome the school also flies at: runways, circuit, height, zone.',
      'The drawing follows what you type.',
      'A booking or a brief may then name it; wind, sun and circuit are of that place.',
      'Lessons flown at home stay as they are.',
      'Take runways and heights from the current chart.',
    ]),
  ],
  [
    /^\/settings/,
    S('settings', 'Settings', 'start', [
      'What is yours: calendar, theme, keys, hints, this device.',
      'The chief instructor also sets the school, its aerodromes, weather and how it is running.',
      'The calendar link shows your bookings in your own calendar; it can be ended.',
      'On this device: how to install Jeito as an application, and what works without a network.',
      'What is set for the school holds for everybody from the next page on.',
    ]),
  ],
  [
    /^\/account\/interface/,
    S('interface', 'Interface for programs', undefined, [
      'What another program reads, address by address.',
      '*Run* asks the address as it stands, with your own session, and shows the answer.',
      'A token sees what you may see, and of that what you gave it.',
      '*changes* lists what is new since a version: for a screen in the hall, or a copy.',
      'Nothing is signed, booked or judged through it.',
    ]),
  ],
  [
    /^\/account/,
    S('account', 'Account', 'people', [
      'Your own flying, password, second factor, sessions and tokens.',
      '*Log your own flight*: it counts for your recency from that day on.',
      'A wrong line is struck out and stays readable.',
      'The second factor is six digits of an authenticator; keep the recovery codes on paper.',
      'End sessions you do not know, then change the password.',
    ]),
  ],
  [
    /^\/notices/,
    S('notices', 'Notices', undefined, [
      'What others did with what is yours: bookings, sign-offs, overrides, groundings.',
      'New ones are marked until you have seen them.',
      'Each leads to what it is about.',
      'They are kept here; nothing is sent by mail.',
      'A notice is not an answer: acknowledge briefs and debriefs on their own pages.',
    ]),
  ],
  [
    /^\/help/,
    S('help', 'Guide', undefined, [
      'How a checkout is run, stage by stage, with pictures of the demo school.',
      'The glossary says what the words on the screens mean here.',
      '? explains the screen you are on, everywhere.',
      'Hints for the first visit of a screen can be turned on and off in the settings.',
      'Words in bold stand on the screens as they are written.',
    ]),
  ],
];
const BOARD = S('board', 'Board', 'start', [
  'The school at one look: your to-do first, then today, open checkouts and what needs a decision.',
  'Each line of your to-do leads to where it is done.',
  'Stalled checkouts, expiring dates, limits exceeded and grounded aeroplanes stand here until they are dealt with.',
  'n opens a new checkout; / finds a person, an aeroplane or a page.',
  'Wind on the board is the station’s with its age: look at the sky and the current report.',
]);
const WEEK = S('week', 'The week', undefined, [
  'Seven days of the school for its chief: what was set aside, refused, flown past a stop or exceeded.',
  'Each line leads to where it stands with its evidence; nothing is decided here.',
  'Flight training is counted over the fullest 24 hours, as booked, against what the law allows.',
  'Papers and recency to teach are as entered; hours in type are those the law asks of an instructor.',
  'What is not on record is not known: ask for it, and see the papers themselves.',
]);

/** The help of the screen at a path; the board is a pilot’s home for who is not staff. */
export function screenOf(path: string, staff: boolean): ScreenHelp {
  if (path === '/board' || path === '/') return staff ? BOARD : HOME;
  if (path === '/board/week') return WEEK;
  const found = PATHS.find(([p]) => p.test(path))?.[1];
  if (found) return found;
  if (path.startsWith('/checkouts/')) return CHECKOUT.find(([p]) => p.test(path))?.[1] ?? CHECKOUT_HOME;
  return staff ? BOARD : HOME;
}
export const ALL_SCREENS: readonly ScreenHelp[] = [
  BOARD,
  HOME,
  CHECKOUT_HOME,
  ...[...PATHS, ...CHECKOUT].map(([, s]) => s),
];
