import type { Transaction } from 'sequelize';
import { schoolItem } from '@/core/plan';
import { SchoolItemForm, TakeProgrammeForm } from '@/domain/item-form';
import { Programme } from '@/domain/programme';
import { type CurrentUser, may } from '../../floor/auth/permissions';
import { problem, type Result, zodProblems } from '../../floor/result';
import { write } from '../../floor/write';
import { putOwnVersion } from '../../rules/commands/content';
import { contentById } from '../../rules/content';
import { ContentVersions } from '../../rules/tables';
import { type CheckoutHead, checkoutHead } from '../queries/head';
import { newerProgrammes } from '../queries/programmes';
import { told } from '../sentences';
import { Checkouts } from '../tables';
import { noteMove } from './moves';

/**
 * Adds an item of the school's own to a programme, as a new version of it, and asks it in the open checkouts that were
 * ticked. Every other checkout keeps its version until its instructor takes the new one.
 */
export async function addSchoolItem(
  user: CurrentUser,
  form: unknown,
): Promise<Result<{ version: number; itemId: string; asked: number }>> {
  const parsed = SchoolItemForm.safeParse(form);
  if (!parsed.success) return zodProblems(parsed.error);
  if (!may.changeHouse(user)) return problem('', told('chief-adds-items'));
  const said = parsed.data;
  return write(async (t): Promise<Result<{ version: number; itemId: string; asked: number }>> => {
    const rows = await ContentVersions.find(
      { where: { kind: 'programme', key: said.key }, pick: ['id', 'version', 'origin'], order: ['-version'] },
      t,
    );
    const inForce = rows.find((r) => r.origin !== 'proposed');
    if (!inForce) return problem('', told('not-found'));
    if (inForce.version !== said.baseVersion)
      return problem('', told('programme-meanwhile', { version: inForce.version }));
    const before = await contentById('programme', inForce.id, t);
    if (before.items.some((i) => i.title.toLowerCase() === said.title.toLowerCase()))
      return problem('title', told('item-there', { title: said.title }));
    const versions = await Promise.all(rows.map((r) => contentById('programme', r.id, t)));
    const item = schoolItem(
      said,
      before,
      versions.flatMap((v) => v.items.map((i) => i.id)),
    );
    const version = (rows[0]?.version ?? 0) + 1;
    const body = Programme.parse({ ...before, items: [...before.items, item] });
    await putOwnVersion({ kind: 'programme', key: said.key, version, body, author: user.name, reason: said.reason }, t);
    const to = await ContentVersions.first({ where: { kind: 'programme', key: said.key, version }, pick: ['id'] }, t);
    let asked = 0;
    for (const id of new Set(said.checkouts)) {
      const head = await checkoutHead(id, t);
      // One that was signed meanwhile, or runs under another version, is left as it is.
      if (head?.status !== 'open' || !head.programmeIds.includes(inForce.id) || !to) continue;
      await put(user, head, { from: inForce.id, to: to.id, reason: `${item.title} is asked. ${said.reason}` }, t);
      asked++;
    }
    return { ok: true, version, itemId: item.id, asked };
  });
}

/** Takes the newest version of a programme into an open checkout, on purpose and with a reason. */
export async function takeProgramme(user: CurrentUser, form: unknown): Promise<Result<object>> {
  const parsed = TakeProgrammeForm.safeParse(form);
  if (!parsed.success) return zodProblems(parsed.error);
  const data = parsed.data;
  return write(async (t): Promise<Result<object>> => {
    const head = await checkoutHead(data.checkoutId, t);
    if (!head || !may.runCheckout(user, head) || head.status !== 'open') return problem('', told('not-found'));
    const newer = (await newerProgrammes(head, t)).find((n) => n.from === data.from);
    if (newer?.to !== data.to) return problem('', told('newer-version'));
    await put(user, head, data, t);
    return { ok: true };
  });
}

async function put(
  user: CurrentUser,
  head: CheckoutHead,
  move: { from: string; to: string; reason: string },
  t: Transaction,
): Promise<void> {
  await Checkouts.update(
    { programmeIds: head.programmeIds.map((id) => (id === move.from ? move.to : id)) },
    { id: head.id },
    t,
  );
  await noteMove(user, head, move.reason, t);
}
