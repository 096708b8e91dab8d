import type { Transaction } from 'sequelize';
import { applyChanges, type KeptChange } from '@/domain/draft-forms';
import { TypeDraftChanges, TypeDrafts, TypeVersions } from '../tables';

export interface TypeDraft {
  id: string;
  /** Of the type that is edited; null of a new one. */
  code: string | null;
  baseVersion: number;
  /** What it was begun from, in words. */
  origin: string;
  /** The sheet the changes were made to. */
  start: unknown;
  changes: KeptChange[];
  /** As it is now. */
  sheet: unknown;
  seq: number;
  madeAt: string;
}

/** The open draft with this id, or of the type with this code; null = there is none. */
export async function typeDraft(key: string, t?: Transaction): Promise<TypeDraft | null> {
  const draft =
    (await TypeDrafts.first({ where: { id: key, endedAt: null } }, t)) ??
    (await TypeDrafts.first({ where: { code: key, endedAt: null } }, t));
  if (!draft) return null;
  const { id, code, baseVersion, origin, madeAt } = draft;
  const rows = await TypeDraftChanges.find({ where: { draftId: id }, with: { maker: ['name'] }, order: ['seq'] }, t);
  const changes = rows.map((r) => ({
    seq: r.seq,
    path: r.path,
    value: JSON.parse(r.value) as unknown,
    page: r.page,
    by: r.maker.name,
    at: r.madeAt,
  }));
  const text =
    code === null
      ? draft.start
      : (
          await TypeVersions.first(
            { where: { version: baseVersion }, pick: ['sheet'], with: { type: { pick: [], where: { code } } } },
            t,
          )
        )?.sheet;
  const start = JSON.parse(text ?? '{}') as unknown;
  const seq = changes[changes.length - 1]?.seq ?? 0;
  return { id, code, baseVersion, origin, madeAt, start, changes, sheet: applyChanges(start, changes), seq };
}

export interface DraftLine {
  id: string;
  name: string;
  origin: string;
  sheet: unknown;
  by: string;
  at: string;
}
/** Types that are being entered and are not in the hangar yet. */
export async function newTypeDrafts(): Promise<DraftLine[]> {
  const open = await TypeDrafts.find({
    where: { code: null, endedAt: null },
    pick: ['id', 'madeAt'],
    with: { maker: ['name'] },
    order: ['madeAt'],
  });
  return Promise.all(
    open.map(async (d) => {
      const draft = await typeDraft(d.id);
      const last = draft?.changes[draft.changes.length - 1];
      return {
        id: d.id,
        name: (draft?.sheet as { name?: string } | undefined)?.name?.trim() || 'No name yet',
        origin: draft?.origin ?? '',
        sheet: draft?.sheet ?? {},
        by: last?.by ?? d.maker.name,
        at: last?.at ?? d.madeAt,
      };
    }),
  );
}
