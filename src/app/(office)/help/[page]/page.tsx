import type { Metadata } from 'next';
import { notFound } from 'next/navigation';
import { requireUser } from '@/server/floor/auth/session';
import { guidePages, guideText } from '@/server/running/queries/guide';
import { GuideText } from '@/ui/help/guide-text';
import { Link } from '@/ui/shared/link';
import { PageStrip } from '@/ui/shared/strip';

type Params = { params: Promise<{ page: string }> };
const headOf = (text: string | null): string => /^# (.+)$/m.exec(text ?? '')?.[1] ?? 'Guide';
export async function generateMetadata({ params }: Params): Promise<Metadata> {
  return { title: `Guide: ${headOf(guideText((await params).page))}` };
}

export default async function GuidePage({ params }: Params) {
  const user = await requireUser();
  const { page } = await params;
  const text = guideText(page);
  if (text === null) notFound();
  return (
    <>
      <PageStrip name="Guide" line={headOf(text)} user={user.name} />
      <main id="main">
        <div className="column">
          <nav aria-label="Guide" className="mb-2 d-flex gap-3">
            <Link href="/help">Guide</Link>
            <Link href="/help/glossary">Glossary</Link>
          </nav>
          <GuideText text={text} pages={guidePages()} />
        </div>
      </main>
    </>
  );
}
