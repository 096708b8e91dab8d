import type { DebriefSnapshot } from '../commands/debrief';
import { dateText, localText } from '@/core/format';
import { say } from '@/domain/words';
import { A4, Pen, newPdf } from '../../floor/pdf';

export interface PrintedDebrief {
  /** A snapshot of before holds no airwork. */
  snapshot: Omit<DebriefSnapshot, 'airwork'> & Partial<Pick<DebriefSnapshot, 'airwork'>>;
  focus: string[];
  remark: string;
  version: number;
  createdBy: string;
  createdAt: string;
  acknowledgedAt: string | null;
  acknowledgedBy: string | null;
  /** The aerodrome's. */
  timeZone: string;
}

/** A debrief on paper, from its snapshot: what the pilot acknowledged is what is printed. */
export async function debriefPdf(d: PrintedDebrief): Promise<Uint8Array> {
  const s = d.snapshot;
  const { pdf, fonts } = await newPdf(`Debrief, ${s.pilot}, lesson ${s.lesson}`, d.createdAt, d);
  const pen = new Pen(pdf, fonts, A4, 50);
  const head = (text: string) => {
    pen.space(6);
    pen.line(text, { font: fonts.bold, size: 12, gap: 2 });
  };
  pen.line(s.headline, { font: fonts.bold, size: 18, gap: 2 });
  pen.line(
    `${s.pilot}, ${s.registration} (${s.type}), ${dateText(s.flownOn)}. Instructor ${s.instructor}. Judged by the standard ${s.standard}.`,
    { size: 10, gap: 4 },
  );
  pen.rule();
  if (d.focus.length > 0) {
    head('Focus for next time');
    d.focus.forEach((f, i) => pen.line(`${i + 1}. ${f}`, { font: fonts.bold, size: 12, indent: 10 }));
  }
  if (d.remark) pen.line(d.remark, { size: 10.5 });
  if (s.best) {
    head('Best and worst');
    pen.line(`Best, landing ${s.best.number}: ${s.best.reason}`, { indent: 10 });
    if (s.worst) pen.line(`Worst, landing ${s.worst.number}: ${s.worst.reason}`, { indent: 10 });
  }
  if (s.self) {
    head('Self-assessment');
    pen.line(
      `Unassisted: ${s.self.own.said} said, ${s.self.own.recorded} recorded. Best: ${s.self.best.said ?? 'none'} said, ${s.self.best.recorded ?? 'none'} recorded. To work on: ${s.self.workOn.said}${s.self.workOn.recorded && !s.self.workOn.same ? `; most was outside in ${s.self.workOn.recorded}` : ''}.`,
      { indent: 10 },
    );
  }
  if (s.changed.length > 0) {
    head('Since earlier lessons');
    for (const c of s.changed) pen.line(`${c.direction}: ${c.what}, ${c.now}, was ${c.before}`, { indent: 10, gap: 1 });
  }
  if (s.findings.length > 0) {
    head('Findings');
    for (const f of s.findings) {
      pen.line(f.title, { font: fonts.bold, indent: 10, gap: 0 });
      pen.line(f.text, { indent: 10, gap: 1 });
      pen.line(f.numbers.map((n) => `${n.label} ${n.text}`).join('; '), { indent: 10, size: 8.5, gap: 1 });
      if (f.next) pen.line(`Next: ${f.next.title} (${f.next.minutes} min). ${f.next.text}`, { indent: 10, gap: 5 });
    }
  }
  const airwork = s.airwork ?? [];
  if (airwork.length > 0) {
    head('Ground and airwork');
    for (const a of airwork)
      pen.line(`${a.item === '' ? '' : `${a.item} `}${a.title}: ${say(a.verdict)}, ${a.whose}`, { indent: 10, gap: 1 });
  }
  if (s.landings.length > 0) head('Landing by landing');
  const columns = [0, 28, 100, 172, 268, 330, 400] as const;
  const cells = (r: readonly string[], bold = false) => {
    if (pen.y < 80) pen.newPage();
    pen.space(12);
    r.forEach((c, i) => pen.text(c, columns[i] ?? 0, { size: 8.5, ...(bold ? { font: fonts.bold } : {}) }));
    pen.space(3);
  };
  if (s.landings.length > 0) cells(['no.', 'kind', 'meant', 'class', 'whose', 'place', 'outside in'], true);
  for (const l of s.landings)
    cells([
      String(l.number),
      l.kind,
      l.meant ?? '',
      l.computed ? `${l.class} (computed ${l.computed})`.slice(0, 26) : l.class.slice(0, 24),
      l.whose ?? '',
      l.lateralM !== null
        ? `${Math.abs(l.lateralM)} m ${l.lateralM < 0 ? 'left' : 'right'}`
        : (l.across ?? '').replace('beyond a track width', 'beyond'),
      l.outside.slice(0, 26),
    ]);
  pen.space(10);
  pen.line(
    `Version ${d.version}, saved by ${d.createdBy} ${localText(d.createdAt, d.timeZone)}. ${d.acknowledgedAt ? `Acknowledged by ${d.acknowledgedBy ?? 'the pilot'} ${localText(d.acknowledgedAt, d.timeZone)}.` : 'Not acknowledged yet.'}`,
    { size: 8.5 },
  );
  pen.line('The flight manual, placards, local law and the instructor in the seat outrank every number here.', {
    size: 8.5,
  });
  return pdf.save();
}
