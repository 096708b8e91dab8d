import { Link } from '@/ui/shared/link';

export default function NotFound() {
  return (
    <main id="main" className="p-4">
      <div className="panel empty" style={{ maxWidth: 560, margin: '12vh auto 0' }}>
        <h1>There is nothing here for you</h1>
        <p>The address may be wrong, or what it names is not yours to see.</p>
        <Link className="btn btn-primary" href="/board">
          To the board
        </Link>
      </div>
    </main>
  );
}
