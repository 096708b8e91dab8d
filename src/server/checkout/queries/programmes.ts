import { Op, type Transaction } from 'sequelize';
import { contentById } from '../../rules/content';
import { ContentVersions } from '../../rules/tables';
import { Checkouts } from '../tables';
import type { CheckoutHead } from './head';

/** A programme of a checkout that has changed since, and what the newest version would change. */
export interface NewerProgramme {
  from: string;
  to: string;
  name: string;
  version: number;
  added: { id: string; title: string; text: string; citation: string }[];
  gone: { id: string; title: string }[];
  /** Asked in both, and not alike. */
  changed: { id: string; title: string }[];
}
/** Programmes of an open checkout that have a newer version in force. */
export async function newerProgrammes(
  head: Pick<CheckoutHead, 'programmeIds'>,
  t?: Transaction,
): Promise<NewerProgramme[]> {
  const found: NewerProgramme[] = [];
  for (const id of head.programmeIds) {
    const pinned = await ContentVersions.first({ where: { id }, pick: ['key', 'version'] }, t);
    const newest =
      pinned &&
      (await ContentVersions.first(
        {
          where: { kind: 'programme', key: pinned.key, origin: { [Op.ne]: 'proposed' } },
          pick: ['id', 'version'],
          order: ['-version'],
        },
        t,
      ));
    if (!newest || newest.version <= pinned.version) continue;
    const [was, is] = [await contentById('programme', id, t), await contentById('programme', newest.id, t)];
    const old = new Map(was.items.map((i) => [i.id, i]));
    found.push({
      from: id,
      to: newest.id,
      name: is.name,
      version: newest.version,
      added: is.items
        .filter((i) => !old.has(i.id))
        .map(({ id: itemId, title, text, citation }) => ({ id: itemId, title, text, citation })),
      gone: was.items.filter((i) => !is.items.some((x) => x.id === i.id)).map((i) => ({ id: i.id, title: i.title })),
      changed: is.items
        .filter((i) => old.has(i.id) && JSON.stringify(old.get(i.id)) !== JSON.stringify(i))
        .map((i) => ({ id: i.id, title: i.title })),
    });
  }
  return found;
}

/** Open checkouts that run under this version of a programme: the ones an added item can be asked in at once. */
export async function openUnder(
  programmeId: string,
): Promise<{ id: string; pilot: string; registration: string; instructor: string }[]> {
  const open = await Checkouts.find({
    where: { status: 'open' },
    pick: ['id', 'programmeIds'],
    with: { pilot: ['name'], airframe: ['registration'], instructor: ['name'] },
    order: ['createdAt'],
  });
  return open
    .filter((c) => c.programmeIds.includes(programmeId))
    .map((c) => ({
      id: c.id,
      pilot: c.pilot.name,
      registration: c.airframe.registration,
      instructor: c.instructor.name,
    }));
}
