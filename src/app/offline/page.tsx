import type { Metadata } from 'next';

export const metadata: Metadata = { title: 'No network' };
export const dynamic = 'force-static';

/**
 * What any page of the office is without the network, served from the device: what works, what waits, and how to go on.
 * Plain links, so that nothing here has to be fetched.
 */
export default function OfflinePage() {
  return (
    <main id="main" className="p-3">
      <div className="panel" style={{ maxWidth: 620, margin: '8vh auto 0' }}>
        <h1>No network</h1>
        <p>This page comes from the server, and the server cannot be reached from here.</p>
        <h2>What works</h2>
        <p>
          Recording a flight that was prepared on this device. What you record is saved here and sent when the network
          is back; nothing is lost by waiting.
        </p>
        <h2>What waits</h2>
        <p>Briefs, debriefs, sign-offs, the schedule and the ledger. A device that was never prepared cannot record.</p>
        <p className="d-flex gap-2 flex-wrap mb-0">
          <a className="btn btn-primary" href="/fly">
            Flights on this device
          </a>
          {/* eslint-disable-next-line jsx-a11y/anchor-is-valid -- the address it stands under, whichever that is */}
          <a className="btn btn-outline-primary" href="">
            Try again
          </a>
        </p>
      </div>
    </main>
  );
}
