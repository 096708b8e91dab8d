import { asksWords, haveWords, landingWords, missingLine } from '@/core/assess';
import { dateText, list, plural } from '@/core/format';
import { say } from '@/domain/words';
import { limitationText, versionWords } from './entry-pdf';
import { entryTitle } from '../titles';
import { itemWords } from '../words';
import { A4, Pen, SLATE, newPdf } from '../../floor/pdf';
import type { LedgerLine } from '../queries/entries';
import type { CheckoutRecord } from '../../checkout/queries/record';
import type { SortieRow } from '../../checkout/queries/flights';

/** Everything a booklet is drawn from: plain, so that it is drawn beside the server and not in it. */
export interface Booklet extends Pick<CheckoutRecord, 'head' | 'items' | 'landings'> {
  sorties: (Omit<SortieRow, 'brief'> & { brief: { acknowledgedAt: string | null } | null })[];
  evidence: Pick<CheckoutRecord['evidence'], 'observations' | 'flights'>;
  names: { pack: string; standard: string };
  today: string;
  /** The day it was opened, at the aerodrome. */
  openedOn: string;
  entries: LedgerLine[];
  lines: { lesson: number; pilot: string; instructor: string }[];
}

/** The whole checkout as a booklet: what was asked, what was shown lesson by lesson, what stands in the ledger. */
export async function drawBooklet(of: Booklet): Promise<Uint8Array> {
  const { head, items, landings, sorties, evidence, names, today, openedOn, entries, lines } = of;
  const { pdf, fonts } = await newPdf(`Checkout of ${head.pilotName}`, `${today}T00:00:00Z`, of);
  const pen = new Pen(pdf, fonts, A4, 48);
  const title = (text: string) => {
    pen.space(8);
    pen.line(text, { font: fonts.bold, size: 13, gap: 3 });
  };
  pen.line(head.pilotName, { font: fonts.bold, size: 22, gap: 4 });
  pen.line(`${list(head.goals.map(say))} on ${head.registration} ${head.typeName}`, { font: fonts.bold, size: 14 });
  pen.line(
    `${names.pack}; standard ${names.standard}; programme ${list(head.programmeIds.map(versionWords))}. ` +
      `Opened on ${dateText(openedOn)} by ${head.instructorName}. ` +
      `${head.status === 'signed' ? 'Signed.' : head.status === 'recommended' ? 'Recommended; the examiner decides.' : 'Open.'} ` +
      `Printed on ${dateText(today)}.`,
    { gap: 4 },
  );
  pen.rule();
  if (entries.length > 0) {
    title('In the ledger');
    for (const e of [...entries].reverse()) {
      pen.line(
        `Entry ${e.seq}, ${entryTitle(e.kind).toLowerCase()}, ${dateText(e.signedOn)}, ` +
          `${e.signerName}${e.voidedBy ? `; void by entry ${e.voidedBy.seq}` : ''}`,
        { font: fonts.bold },
      );
      const text = e.later?.text ?? e.body?.text;
      for (const part of (text ?? '').split('\n').filter(Boolean)) pen.line(part, { indent: 10 });
      if (e.body && (e.kind === 'sign-off' || e.kind === 'recommendation'))
        pen.line(`Limitations: ${limitationText(e.body.limitations)}`, { indent: 10 });
      for (const i of (e.body?.items ?? []).filter((x) => x.overridden || x.waived))
        pen.line(`${i.id} ${i.title}: ${itemWords(i).text}`, { indent: 10, size: 9 });
      pen.line(`SHA-256 ${e.hash}`, { indent: 10, font: fonts.mono, size: 7, color: SLATE });
    }
  }
  title('What was asked, and what stands');
  for (const i of items) {
    pen.line(`${i.item.id}  ${i.item.title}: ${i.state === 'not' ? 'open' : say(i.state)}`, {
      font: fonts.bold,
      gap: 0,
    });
    pen.line(
      `Asks ${asksWords(i.asks)}. Has ` +
        `${i.waived ?? haveWords(i.have)}${i.missing.length > 0 && !i.met ? `; missing ${missingLine(i.missing)}` : ''}. ` +
        `${i.item.citation}`,
      { size: 9, indent: 10, gap: 4 },
    );
  }
  for (const s of sorties) {
    const flown = landings.filter((l) => l.sortieId === s.id);
    const seen = evidence.observations.filter((o) => o.lesson === s.lesson);
    if (flown.length === 0 && seen.length === 0) continue;
    title(`Lesson ${s.lesson}, ${dateText(s.flownOn)}`);
    const minutes = evidence.flights?.find((f) => f.id === s.id)?.minutes;
    pen.line(
      `${plural(flown.length, 'landing')}, ${flown.filter((l) => l.judged.landingClass === 'own').length} ` +
        `the pilot\u2019s own and in standard${minutes ? `; ${minutes} min by the clock` : ''}. ` +
        `${s.brief?.acknowledgedAt ? 'Brief acknowledged.' : ''}`,
    );
    const line = lines.find((x) => x.lesson === s.lesson);
    if (line) {
      pen.line(`Logbook, pilot: ${line.pilot}`, { size: 9, indent: 10, gap: 2 });
      pen.line(`Logbook, instructor: ${line.instructor}`, { size: 9, indent: 10, gap: 4 });
    }
    for (const l of flown)
      pen.line(
        `${l.number}  ` +
          `${say(l.kind)}${l.intended ? `, ${say(l.intended)}` : ''}${(l.surface ?? 'land') === 'water' ? ', water' : ''}: ` +
          `${say(l.judged.landingClass)}${l.crosswindKt === null ? '' : `, ${Math.round(Math.abs(l.crosswindKt))} kt across`}. ` +
          landingWords(l.judged.reason),
        { size: 8.5, indent: 10, gap: 1 },
      );
    for (const o of seen)
      pen.line(
        `${o.data.itemId.startsWith('also:') ? say(o.data.itemId.slice(5)) : o.data.itemId}: ` +
          `${say(o.data.verdict)}${o.data.note ? `, ${o.data.note}` : ''}`,
        { size: 8.5, indent: 10, gap: 1 },
      );
  }
  pen.space(8);
  pen.line(
    'The flight manual, the placards, the law of the place and the instructor in the seat outrank this ' +
      'booklet. What is signed stands in the ledger; this is a copy to read.',
    { size: 9, color: SLATE },
  );
  return pdf.save();
}
