import type { Metadata } from 'next';
import Link from 'next/link';
import { list } from '@/core/format';
import { say } from '@/domain/words';
import { signingState } from '@/server/commands/sign';
import { ItemList } from '@/ui/sign/item-list';
import { SignForm } from '@/ui/sign/sign-form';
import { Outranked, Panel, Title } from '@/ui/shared/parts';
import { FlightStrip } from '@/ui/shared/strip';
import { checkoutPage } from '../../../../checkout-page';
import { recordEventAction, signCheckoutAction } from '../../../../actions';
import { WaiveForm } from '@/ui/sign/waive-form';

export const metadata: Metadata = { title: 'Sign' };

export default async function SignPage({ params }: { params: Promise<{ id: string }> }) {
  const { user, record, strip, runs } = await checkoutPage(params);
  const { head, items, pack } = record;
  const met = items.filter((i) => i.met).length;
  const problems = runs && head.status === 'open' ? await signingState(user, record) : [];
  const latest = record.sorties[record.sorties.length - 1];
  const waivable = items.filter((i) => !i.met && i.item.waivable !== null);
  const written = pack.goals.filter((g) => head.goals.includes(g.goal));
  return (
    <>
      <FlightStrip facts={strip} at="sign" />
      <main id="main"><div className="column">
        <Title
          title={head.status === 'signed' ? 'Signed' : met === items.length && problems.length === 0 ? 'Everything is there to sign' : `${met} of ${items.length} items met`}
          line={`${head.pilotName}, ${head.registration} ${head.typeName}: ${list(head.goals.map(say))} under ${pack.name}.`}
        />
        {head.status === 'signed' ? <p className="note-good">This checkout is in the book. <Link href={`/ledger/${head.signedLedgerId ?? ''}`}>See the entry and its PDF</Link></p> : null}
        <div className="grid g-3-2">
          <Panel title="Criteria and evidence"><ItemList items={items} landings={record.landings} observations={record.evidence.observations} /></Panel>
          <div className="grid" style={{ alignContent: 'start' }}>
            {runs && head.status === 'open' ? (
              <>
                {problems.length > 0 ? <Panel title="Missing before you can sign"><ul className="ps-3 mb-0">{problems.map((p) => <li key={p.message} className="mb-1">{p.target === 'none' || p.target === 'people' ? p.message : <Link href={`/checkouts/${head.id}/${p.target}`}>{p.message}</Link>}</li>)}</ul></Panel> : null}
                <Panel title="Sign"><SignForm checkoutId={head.id} blocked={problems.length > 0} action={signCheckoutAction} /></Panel>
                {waivable.length > 0 && latest ? <Panel title="Waive"><WaiveForm sortieId={latest.id} author={user.id} items={waivable.map((i) => ({ id: i.item.id, title: i.item.title, rule: i.item.waivable ?? '' }))} action={recordEventAction} /></Panel> : null}
              </>
            ) : head.status === 'open' ? <Panel title="Who signs"><p className="mb-0">The instructor signs when every item has its evidence.</p></Panel> : null}
            <Panel title="What is written">
              {written.map((g) => <p key={g.goal} className="mb-1">{g.title}: {g.written} Lasts: {g.lasts} <span className="soft">{g.citation}</span></p>)}
              <p className="caution mb-0">{pack.caution}</p>
            </Panel>
            <Outranked />
          </div>
        </div>
      </div></main>
    </>
  );
}
