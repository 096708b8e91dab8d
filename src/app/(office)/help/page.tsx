import type { Metadata } from 'next';
import { requireUser } from '@/server/floor/auth/session';
import { guidePages, guideText } from '@/server/running/queries/guide';
import { GuideText } from '@/ui/help/guide-text';
import { Link } from '@/ui/shared/link';
import { Empty } from '@/ui/shared/parts';
import { PageStrip } from '@/ui/shared/strip';

export const metadata: Metadata = { title: 'Guide' };

export default async function HelpPage() {
  const user = await requireUser();
  const text = guideText('');
  return (
    <>
      <PageStrip name="Guide" line="stage by stage" user={user.name} />
      <main id="main">
        <div className="column">
          {text === null ? (
            <Empty
              title="The guide is not here"
              text="It comes with the application, in its folder docs. The question mark at the top explains each screen."
            />
          ) : (
            <GuideText text={text} pages={guidePages()} />
          )}
          <p>
            <Link href="/help/glossary">Glossary</Link>: what the words on the screens mean here.
          </p>
        </div>
      </main>
    </>
  );
}
