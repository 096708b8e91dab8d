import { randomUUID } from 'node:crypto';
import type { Transaction } from 'sequelize';
import { asSample } from '@/core/sheet';
import {
  DraftKeyForm,
  KeepDraftForm,
  type KeptChange,
  overlap,
  SaveDraftForm,
  StartDraftForm,
} from '@/domain/draft-forms';
import { emptyOf, misfit, nodeAt } from '@/domain/form-node';
import { TypeSheet } from '@/domain/sheet';
import { type CurrentUser, may } from '../../floor/auth/permissions';
import { nowIso } from '../../floor/clock';
import { problem, type Result, zodProblems } from '../../floor/result';
import { write } from '../../floor/write';
import { type TypeDraft, typeDraft } from '../queries/drafts';
import { sampleSheet, TYPE_NODE } from '../samples';
import { told } from '../sentences';
import { TypeDraftChanges, TypeDrafts, Types, TypeVersions } from '../tables';
import { addTypeVersion } from './hangar';

const MOST_CHARACTERS = 200_000;

async function newestOf(code: string, t?: Transaction): Promise<{ version: number; sheet: TypeSheet } | null> {
  const newest = await TypeVersions.first(
    { pick: ['version', 'sheet'], with: { type: { pick: [], where: { code } } }, order: ['-version'] },
    t,
  );
  return newest ? { version: newest.version, sheet: TypeSheet.parse(JSON.parse(newest.sheet)) } : null;
}

/** Begins a new type: with nothing, with a sample of its kind, or with the shape of a type that is there. */
export async function startTypeDraft(user: CurrentUser, form: unknown): Promise<Result<{ id: string }>> {
  const parsed = StartDraftForm.safeParse(form);
  if (!parsed.success) return zodProblems(parsed.error);
  if (!may.changeHouse(user)) return problem('', told('chief-edits'));
  const d = parsed.data;
  let [start, origin] = [JSON.stringify(emptyOf(TYPE_NODE)), 'begun empty'];
  if (d.from === 'sample')
    [start, origin] = [sampleSheet(d.kind), `begun from the sample ${d.kind.replaceAll('-', ' ')}`];
  if (d.from === 'type') {
    const newest = await newestOf(d.code);
    if (!newest) return problem('', told('type-unknown'));
    const of = `${newest.sheet.name}, version ${newest.version}`;
    [start, origin] = [JSON.stringify(asSample(newest.sheet, of)), `begun from ${of}`];
  }
  const id = `draft-${randomUUID()}`;
  const madeAt = nowIso();
  await write(
    async (t) =>
      void (await TypeDrafts.insert(
        { id, code: null, baseVersion: 0, start, origin, madeBy: user.id, madeAt, endedAt: null, endedVersion: null },
        t,
      )),
  );
  return { ok: true, id };
}

/** The open draft; of a type that is edited, it begins with the first change. */
async function openDraft(user: CurrentUser, key: string, base: number, t: Transaction): Promise<Result<TypeDraft>> {
  const open = await typeDraft(key, t);
  if (open) return { ok: true, ...open };
  const newest = await newestOf(key, t);
  if (!newest || base === 0) return problem('', told('draft-gone'));
  if (newest.version !== base) return problem('', told('draft-newer', { version: newest.version }));
  const id = `draft-${randomUUID()}`;
  const origin = `from version ${base}`;
  const madeAt = nowIso();
  await TypeDrafts.insert(
    {
      ...{ id, code: key, baseVersion: base, start: null, origin, madeBy: user.id, madeAt },
      ...{ endedAt: null, endedVersion: null },
    },
    t,
  );
  const now = await typeDraft(id, t);
  return now ? { ok: true, ...now } : problem('', told('draft-gone'));
}

export interface Kept {
  /** The last change of the draft. */
  seq: number;
  /** What other pages changed since the one that was known. */
  others: KeptChange[];
  /** Paths that were not kept, because another page changed the same field since. */
  refused: string[];
}

/**
 * Keeps changes of a draft, field by field. A field that another page has changed since is not written over: it comes
 * back with what stands there.
 */
export async function keepTypeDraft(user: CurrentUser, form: unknown): Promise<Result<Kept>> {
  const parsed = KeepDraftForm.safeParse(form);
  if (!parsed.success) return zodProblems(parsed.error);
  if (!may.changeHouse(user)) return problem('', told('chief-edits'));
  const { key, baseVersion, seen, page, changes } = parsed.data;
  for (const c of changes) {
    const node = nodeAt(TYPE_NODE, c.path.split('.'));
    const fits = node !== null && node.kind !== 'fixed' && c.value !== undefined;
    if (!fits || misfit(node, c.value, '', true) !== null) return problem('', told('draft-field', { path: c.path }));
    if (JSON.stringify(c.value).length > MOST_CHARACTERS) return problem('', told('draft-large'));
  }
  return write(async (t): Promise<Result<Kept>> => {
    if (changes.length === 0) {
      const now = await typeDraft(key, t);
      const others = now?.changes.filter((c) => c.seq > seen && c.page !== page) ?? [];
      return { ok: true, seq: now?.seq ?? 0, others, refused: [] };
    }
    const draft = await openDraft(user, key, baseVersion, t);
    if (!draft.ok) return draft;
    const others = draft.changes.filter((c) => c.seq > seen && c.page !== page);
    const refused = changes.filter((c) => others.some((o) => overlap(o.path, c.path))).map((c) => c.path);
    let seq = draft.seq;
    const taken = changes.filter((x) => !refused.includes(x.path));
    // What stood in these fields before is written over by them: the draft stays as short as the sheet is wide.
    if (taken.length > 0) await TypeDraftChanges.delete({ draftId: draft.id, path: taken.map((c) => c.path) }, t);
    for (const c of taken)
      await TypeDraftChanges.insert(
        {
          ...{ draftId: draft.id, seq: ++seq, path: c.path, value: JSON.stringify(c.value) },
          ...{ page, madeBy: user.id, madeAt: nowIso() },
        },
        t,
      );
    return { ok: true, seq, others, refused };
  });
}

const slug = (name: string): string =>
  name
    .normalize('NFD')
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/^-+|-+$/g, '')
    .slice(0, 40);

/** Puts a draft into the hangar as a new version, or as a new type; the draft ends with it. */
export async function saveTypeDraft(
  user: CurrentUser,
  form: unknown,
): Promise<Result<{ code: string; version: number }>> {
  const parsed = SaveDraftForm.safeParse(form);
  if (!parsed.success) return zodProblems(parsed.error);
  if (!may.changeHouse(user)) return problem('', told('chief-edits'));
  const { key, seen, reason } = parsed.data;
  return write(async (t): Promise<Result<{ code: string; version: number }>> => {
    const draft = await typeDraft(key, t);
    if (!draft) return problem('', told('draft-gone'));
    const last = draft.changes[draft.changes.length - 1];
    if (last && last.seq !== seen) return problem('', told('draft-others', { by: last.by }));
    const entered = draft.sheet as { code?: string; name?: string };
    const code = draft.code ?? (entered.code?.trim() || slug(entered.name ?? ''));
    const sheet = TypeSheet.safeParse({ ...entered, code });
    if (!sheet.success)
      return {
        ok: false,
        problems: sheet.error.issues.map((i) => ({ path: `sheet.${i.path.join('.')}`, message: i.message })),
      };
    if (draft.code === null && (code === 'new' || (await Types.first({ where: { code }, pick: ['id'] }, t))))
      return problem('sheet.code', told('code-taken', { code }));
    const newest = draft.code === null ? null : await newestOf(draft.code, t);
    if (newest && newest.version !== draft.baseVersion)
      return problem('', told('draft-newer', { version: newest.version }));
    const saved = await addTypeVersion(user.name, sheet.data, draft.baseVersion, reason, t);
    if (!saved.ok) return saved;
    await TypeDrafts.update({ endedAt: nowIso(), endedVersion: saved.version }, { id: draft.id }, t);
    return { ok: true, code, version: saved.version };
  });
}

/** Takes the newest version as the base of a draft: the fields that were changed are changed on it. */
export async function rebaseTypeDraft(user: CurrentUser, form: unknown): Promise<Result<object>> {
  const parsed = DraftKeyForm.safeParse(form);
  if (!parsed.success) return zodProblems(parsed.error);
  if (!may.changeHouse(user)) return problem('', told('chief-edits'));
  return write(async (t): Promise<Result<object>> => {
    const draft = await typeDraft(parsed.data.key, t);
    const newest = draft?.code ? await newestOf(draft.code, t) : null;
    if (!draft || !newest) return problem('', told('draft-gone'));
    await TypeDrafts.update({ baseVersion: newest.version }, { id: draft.id }, t);
    return { ok: true };
  });
}

/** Ends a draft without a version. What was entered stays in the data folder and is not shown any more. */
export async function discardTypeDraft(user: CurrentUser, form: unknown): Promise<Result<object>> {
  const parsed = DraftKeyForm.safeParse(form);
  if (!parsed.success) return zodProblems(parsed.error);
  if (!may.changeHouse(user)) return problem('', told('chief-edits'));
  return write(async (t): Promise<Result<object>> => {
    const draft = await typeDraft(parsed.data.key, t);
    if (!draft) return problem('', told('draft-gone'));
    await TypeDrafts.update({ endedAt: nowIso() }, { id: draft.id }, t);
    return { ok: true };
  });
}
