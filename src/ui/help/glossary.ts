/** What the words on the screens mean here. By subject, each subject in the order of the alphabet. */
export interface Term {
  term: string;
  text: string;
}
const T = (term: string, text: string): Term => ({ term, text });

export const GLOSSARY: readonly { title: string; terms: readonly Term[] }[] = [
  {
    title: 'A checkout',
    terms: [
      T('Acknowledge', 'The pilot says that a brief or a debrief was read. It is kept with the instant.'),
      T('Brief', 'The speeds, configurations, limits and procedures of one lesson, saved in versions.'),
      T('Checkout', 'One pilot, one aeroplane, one or more goals, under the rule versions it was opened with.'),
      T('Credit', 'An item met by what the pilot has done before, with what it rests on.'),
      T('Debrief', 'A lesson looked at together, after the pilot’s own assessment.'),
      T('Goal', 'What the checkout is for: tailwheel, complex, high performance, multi-engine, sea, a new type.'),
      T('Lesson', 'One flight of a checkout with its brief and debrief. It flies at one aerodrome.'),
      T(
        'Override',
        'An item signed without its evidence: asked for by the instructor, answered by the chief instructor, printed.',
      ),
      T('Programme', 'The items of a goal, each with its regulation and the evidence it wants.'),
      T('Recommendation', 'The instructor’s word that a pilot is ready for a test somebody else decides.'),
      T('Standard', 'The tolerances landings and manoeuvres are judged by.'),
      T('Waiver', 'An item left out by the instructor, with a reason that is printed.'),
    ],
  },
  {
    title: 'Judging',
    terms: [
      T(
        'Asserted',
        'Taken from the clean tap and not from a criterion that was looked at. Only part of the evidence may rest on it.',
      ),
      T('Clean tap', 'One tap for a landing without drift, crab, swing or bounce.'),
      T(
        'Criterion',
        'One thing a landing is judged by: speed, place, drift, crab, swing, aileron and so on. Each is for control or for precision.',
      ),
      T('Demonstration', 'Flown by the instructor to show it. Shown in the record, never counted.'),
      T('Edge', 'Inside the standard, by less than a fifth of the tolerance.'),
      T('Evidence', 'The landings, items, briefs and checks an item rests on. Each can be opened.'),
      T('Finding', 'A pattern seen over several landings or lessons, with its numbers and an exercise.'),
      T(
        'Intervention',
        'Who flew it: unassisted, prompted by voice, assisted by hands or feet, or the instructor took over.',
      ),
      T('Not seen', 'Nobody looked, or could. It is never counted as good, and never as bad.'),
      T('Outside', 'Beyond the standard or beyond a limit.'),
      T('Overruled', 'A computed verdict changed by the instructor with a reason. The computed one stays in sight.'),
      T('Prompt', 'Words that change what the pilot does. Agreed call-outs are none.'),
      T(
        'Run',
        'Unassisted landings one after the other, over two flights and two days, one of them the first of a flight.',
      ),
      T('Stop', 'A check that says do not fly: what is flown past it is kept, and is no evidence.'),
      T('Within', 'Inside the standard.'),
    ],
  },
  {
    title: 'The aeroplane and its speeds',
    terms: [
      T('Airframe', 'One registration. It differs from its type where its sheet says so.'),
      T('CAS, IAS, TAS', 'Calibrated, indicated and true airspeed. Gates are in IAS, as the dial shows it.'),
      T('Crosswind proven', 'The strongest crosswind this pilot has shown control in, in this group of aeroplanes.'),
      T(
        'Demonstrated crosswind',
        'What the test pilot met. It is not a limitation unless the flight manual makes it one.',
      ),
      T(
        'Density altitude',
        'The altitude of the standard atmosphere with today’s density: what wing, engine and propeller feel.',
      ),
      T('Gate', 'A point of the approach with its height, speed, flap, gear and power.'),
      T('Governing limit', 'The lowest of the limits that hold today, with its source.'),
      T('Grounded', 'Out of service for a finding, a missed inspection or a hold of the school.'),
      T('Personal crosswind limit', 'What the school allows this pilot now: a step above what was proven.'),
      T(
        'Source',
        'Where a number comes from: H handbook, P placard, S school, I instructor, M measured, ? unconfirmed sample.',
      ),
      T('Type sheet', 'The numbers of a type, each with its source, in versions.'),
      T(
        'Va, Vfe, Vlo, Vno, Vne',
        'Manoeuvring speed, flaps extended, gear operating, normal operating and never exceed.',
      ),
      T(
        'Vmca, Vsse, Vyse',
        'In a twin: minimum control speed in the air, safe single-engine speed for training, best climb on one engine.',
      ),
      T(
        'Vref, Vs0, Vs1',
        'Approach speed over the threshold; stall in the landing configuration; stall clean or as stated.',
      ),
    ],
  },
  {
    title: 'Landings',
    terms: [
      T('Bounce', 'The wheels leave the surface again. How it was handled counts, not that it happened.'),
      T('Crab', 'The nose is not in line with the track at the touch.'),
      T('Drift', 'The aeroplane moves sideways over the ground at the touch.'),
      T('Ground loop', 'A swing that is no longer stopped. It leaves the runway or damages the aeroplane.'),
      T('In the box', 'The wheels touched in the stretch of runway that was aimed for.'),
      T('Mains first', 'Seen at the touch: main wheels before the tailwheel.'),
      T('Step, heels first, bow first', 'On water: on the planing surface, on its aft end, or on the bow.'),
      T('Swing', 'The nose leaves the line in the roll-out.'),
      T('Three-point', 'Main wheels and tailwheel touch together.'),
      T('Wheel landing', 'Intended on the main wheels with the tail up.'),
    ],
  },
  {
    title: 'Record and school',
    terms: [
      T('Correction, void', 'Entries about an entry: one mends a slip of the pen, the other ends what was signed.'),
      T('Currency, recency', 'Recent flying that keeps a right alive, and until when it does.'),
      T(
        'Entry',
        'What was signed: words, limits, evidence. Signed with the school’s key and chained to the one before.',
      ),
      T('Exceedance', 'A limit passed in a recording. The aeroplane waits for its inspection.'),
      T('Hash', 'A fingerprint of a text: change one letter and it is another.'),
      T('Recording', 'The file of a panel or a tablet, and what was found in it.'),
      T('Recurrent check', 'A flight with an instructor that the school asks for after a time without the type.'),
      T('Restricted, confirm', 'Marked where a rule pack is not certain: ask your authority before you rely on it.'),
      T('Rule pack', 'A reading of the law of one place, with the date of its text.'),
      T('School rules', 'What the school asks beyond the law. It may ask for more, never for less.'),
      T('Scope', 'What a token was given to read.'),
      T('Version', 'Sheets, rules and briefs change by a new version. What used the old one keeps it.'),
    ],
  },
];
