import { dayHere } from '@/server/rules/today';
import type { Metadata } from 'next';
import { Link } from '@/ui/shared/link';
import { plural } from '@/core/format';
import { may } from '@/server/floor/auth/permissions';
import { denyUnless, requireUser } from '@/server/floor/auth/session';
import { contentList } from '@/server/rules/queries/content';
import { Panel } from '@/ui/shared/parts';
import { Title } from '@/ui/shared/title';
import { PageStrip } from '@/ui/shared/strip';

export const metadata: Metadata = { title: 'Rules' };
const GROUPS: [kind: string, title: string, line: string][] = [
  [
    'pack',
    'Rule packs',
    'What a jurisdiction asks, with its citations. Check the current text: the authority\u2019s wording governs.',
  ],
  ['programme', 'Programmes', 'The items of a goal under one pack, with the school\u2019s own.'],
  ['standard', 'Standards', 'Named sets of tolerances.'],
  ['house', 'School rules', 'Limits, signing, intervals.'],
  ['schools', 'Technique choices', 'Where good instructors differ.'],
  ['findings', 'Findings', 'Patterns looked for in the landings flown.'],
  ['differences', 'Differences', 'What changes between types, and why it matters.'],
  ['aerodrome', 'Aerodrome', 'Runways and airspace.'],
];

export default async function RulesPage() {
  const day = await dayHere();
  const user = await requireUser();
  denyUnless(may.seeEverybody(user));
  const all = await contentList();
  return (
    <>
      <PageStrip name="Rules" line={plural(all.length, 'piece')} user={user.name} />
      <main id="main">
        <div className="column">
          <Title
            title="Rules and programmes"
            line="Versioned: a change makes a new version, and a checkout keeps those it was opened under."
          />
          <div className="grid g-1-1" style={{ alignItems: 'start' }}>
            {GROUPS.map(([kind, title, line]) => {
              const here = all.filter((c) => c.kind === kind);
              return here.length === 0 ? null : (
                <Panel key={kind} title={title}>
                  <p className="soft small">{line}</p>
                  <table aria-label={title} className="plain">
                    <tbody>
                      {here.map((c) => (
                        <tr key={c.key}>
                          <td>
                            <Link href={`/rules/${c.kind}/${c.key}`}>{c.name}</Link>
                            {c.proposed ? <span className="tag v-edge">update proposed</span> : null}
                          </td>
                          <td className="num">version {c.version}</td>
                          <td className="soft">
                            {c.origin === 'house' ? `${c.author}, ${day(c.createdAt)}` : 'shipped'}
                          </td>
                        </tr>
                      ))}
                    </tbody>
                  </table>
                </Panel>
              );
            })}
          </div>
        </div>
      </main>
    </>
  );
}
