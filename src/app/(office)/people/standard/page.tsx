import { TableHead } from '@/ui/shared/table-head';
import type { Metadata } from 'next';
import { Link } from '@/ui/shared/link';
import { fixed } from '@/core/format';
import { say } from '@/domain/words';
import { may } from '@/server/floor/auth/permissions';
import { denyUnless, requireUser } from '@/server/floor/auth/session';
import { instructorsCompared } from '@/server/checkout/queries/standard';
import { EyeBars } from '@/ui/debrief/eye-bars';
import { Empty, Panel } from '@/ui/shared/parts';
import { Title } from '@/ui/shared/title';
import { PageStrip } from '@/ui/shared/strip';

export const metadata: Metadata = { title: 'Instructor standardisation' };

export default async function StandardPage() {
  const user = await requireUser();
  denyUnless(may.compareInstructors(user));
  const { landings, instructors } = await instructorsCompared();
  const criteria = [...new Set(instructors.flatMap((i) => i.byCriterion.map((c) => c.criterion)))];
  return (
    <>
      <PageStrip
        name="Instructor standardisation"
        line={`${instructors.length} instructors, ${landings} landings`}
        user={user.name}
      />
      <main id="main">
        <div className="column">
          <Title
            title="Instructor standardisation"
            line="Landings judged by eye and measured by a recording. The measurement is the same for all, so differences come from the eye."
          >
            <Link className="btn btn-outline-primary" href="/people">
              Back to people
            </Link>
          </Title>
          {instructors.length === 0 ? (
            <Empty
              title="Nothing to compare yet"
              text="When recorded measures are accepted beside the tapped ones, each instructor stands here beside the recording."
            />
          ) : (
            <div className="grid">
              <Panel title={`${landings} landings seen and measured`}>
                <EyeBars rows={instructors} />
                <div className="scroll-x">
                  <table aria-label="Instructors compared" className="plain">
                    <TableHead
                      columns={[
                        'Instructor',
                        { right: 'judged twice' },
                        { right: 'the same' },
                        { right: 'more lenient' },
                        { right: 'stricter' },
                        { right: 'mean shift (steps)' },
                        'Result',
                      ]}
                    />
                    <tbody>
                      {instructors.map((i) => (
                        <tr key={i.author}>
                          <td>{i.name}</td>
                          <td className="r mono">{i.n}</td>
                          <td className="r mono">{i.agree}</td>
                          <td className="r mono">{i.kinder}</td>
                          <td className="r mono">{i.harder}</td>
                          <td className="r mono">
                            {i.shift > 0 ? '+' : i.shift < 0 ? '\u2013' : ''}
                            {fixed(Math.abs(i.shift), 2)}
                          </td>
                          <td>
                            {i.kinder + i.harder < 6
                              ? 'too few differences to tell'
                              : i.luck >= 0.05
                                ? 'no clear tendency'
                                : i.shift < 0
                                  ? 'more lenient than the recording'
                                  : 'stricter than the recording'}
                          </td>
                        </tr>
                      ))}
                    </tbody>
                  </table>
                </div>
                <p className="soft small mb-0 mt-2">
                  A step is from within to edge, or from edge to outside. Lenient against strict is tested with a sign
                  test and stated under 5 in 100.
                </p>
              </Panel>
              <Panel title="Criterion by criterion">
                <div className="scroll-x">
                  <table aria-label="Criterion by criterion" className="plain">
                    <thead>
                      <tr>
                        <th scope="col">Criterion</th>
                        {instructors.map((i) => (
                          <th scope="col" key={i.author}>
                            {i.name}
                          </th>
                        ))}
                      </tr>
                    </thead>
                    <tbody>
                      {criteria.map((c) => (
                        <tr key={c}>
                          <td>{say(c)}</td>
                          {instructors.map((i) => {
                            const x = i.byCriterion.find((y) => y.criterion === c);
                            return (
                              <td key={i.author} className="mono small">
                                {x
                                  ? `${x.agree} of ${x.n} the same, ${x.kinder} more lenient, ${x.harder} stricter`
                                  : ''}
                              </td>
                            );
                          })}
                        </tr>
                      ))}
                    </tbody>
                  </table>
                </div>
              </Panel>
            </div>
          )}
        </div>
      </main>
    </>
  );
}
