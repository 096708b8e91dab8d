import type { ReactNode } from 'react';
import { Link } from '@/ui/shared/link';
import { redirect } from 'next/navigation';
import type { CurrentUser } from '@/server/floor/auth/permissions';
import { denyUnless, requireUser } from '@/server/floor/auth/session';
import { type LabFacts, type LabSubject, labFacts } from '@/server/lab/queries/lab';
import type { LabContext } from '@/ui/lab/lab-bar';
import { LabLinks } from '@/ui/lab/lab-links';
import { Title } from '@/ui/shared/title';
import { FlightStrip, PageStrip } from '@/ui/shared/strip';
import { checkoutPage } from './checkout-page';

export type LabSearch = Promise<Record<string, string | string[] | undefined>>;

/**
 * What every lab page starts with. A checkout that is not this user's, or a type that is none, answers like a page that
 * is not there.
 */
export async function labPage(
  search: LabSearch,
  subject: LabSubject,
): Promise<{
  user: CurrentUser;
  facts: LabFacts;
  query: Record<string, string | string[] | undefined>;
  context: LabContext;
}> {
  const user = await requireUser();
  const query = await search;
  const facts = await labFacts(user, query, subject);
  denyUnless(facts !== null);
  // The lab's own page says what is missing and where to add it.
  if (facts === 'no-type') redirect('/lab');
  return {
    user,
    facts,
    query,
    context: {
      choices: facts.choices,
      typeKey: facts.type.key,
      oldKey: facts.old.key,
      checkoutId: facts.head?.id ?? null,
      pilotName: facts.head?.pilotName ?? null,
    },
  };
}

/** Strip, title and links of a lab page; the flight strip when it belongs to a checkout. */
export async function LabFrame({
  user,
  facts,
  title,
  line,
  at,
  children,
}: {
  user: CurrentUser;
  facts: LabFacts;
  title: string;
  line: string;
  at: LabSubject;
  children: ReactNode;
}) {
  const strip = facts.head ? (await checkoutPage(Promise.resolve({ id: facts.head.id }))).strip : null;
  return (
    <>
      {strip ? <FlightStrip facts={strip} at="brief" /> : <PageStrip name="Lab" line={title} user={user.name} />}
      <main id="main">
        <div className="column">
          <Title title={title} line={line}>
            {facts.head ? (
              <Link className="btn btn-primary" href={`/checkouts/${facts.head.id}/brief`}>
                Back to brief
              </Link>
            ) : null}
          </Title>
          {facts.head ? <LabLinks checkoutId={facts.head.id} but={at} /> : null}
          {children}
        </div>
      </main>
    </>
  );
}
