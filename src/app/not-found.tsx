import { Link } from '@/ui/shared/link';

export default function NotFound() {
  return (
    <main id="main" className="p-4">
      <div className="panel empty" style={{ maxWidth: 560, margin: '12vh auto 0' }}>
        <h1>Not found, or you do not have access</h1>
        <p>Check the address, or ask the chief instructor for access.</p>
        <Link className="btn btn-primary" href="/board">
          Back to board
        </Link>
      </div>
    </main>
  );
}
