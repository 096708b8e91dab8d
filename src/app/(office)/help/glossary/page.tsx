import type { Metadata } from 'next';
import { requireUser } from '@/server/floor/auth/session';
import { GLOSSARY } from '@/ui/help/glossary';
import { Link } from '@/ui/shared/link';
import { OnThisPage } from '@/ui/shared/on-this-page';
import { Panel } from '@/ui/shared/parts';
import { PageStrip } from '@/ui/shared/strip';
import { Title } from '@/ui/shared/title';

export const metadata: Metadata = { title: 'Glossary' };

export default async function GlossaryPage() {
  const user = await requireUser();
  return (
    <>
      <PageStrip name="Glossary" line="words of the screens" user={user.name} />
      <main id="main">
        <div className="column">
          <Title title="Glossary" line="What the words on the screens mean here.">
            <Link className="btn btn-outline-primary" href="/help">
              Guide
            </Link>
          </Title>
          <OnThisPage />
          <div className="grid">
            {GLOSSARY.map(({ title, terms }) => (
              <Panel key={title} title={title}>
                <dl className="glossary mb-0">
                  {terms.map((t) => (
                    <div key={t.term}>
                      <dt>{t.term}</dt>
                      <dd>{t.text}</dd>
                    </div>
                  ))}
                </dl>
              </Panel>
            ))}
          </div>
        </div>
      </main>
    </>
  );
}
