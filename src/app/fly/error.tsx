'use client';

/** The cockpit failed to draw. What was tapped is in the store of this device and does not depend on this page. */
export default function FlyError({ reset }: { error: Error; reset: () => void }) {
  return (
    <main id="main" className="p-3">
      <div className="panel empty" role="alert">
        <h1>The cockpit stopped</h1>
        <p>Everything saved is still on this device. Reload; if it stops again, use the paper tally on the card.</p>
        <div className="d-flex gap-2 justify-content-center flex-wrap">
          <button type="button" className="tap" onClick={reset}>
            Try again
          </button>
          <button type="button" className="tap" onClick={() => window.location.reload()}>
            Reload
          </button>
        </div>
      </div>
    </main>
  );
}
