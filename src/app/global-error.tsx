'use client';
import 'bootstrap/dist/css/bootstrap.min.css';
import '@/ui/shared/theme.css';

/** The last resort: the layout itself failed, so this page brings its own document. */
export default function GlobalError({ reset }: { error: Error; reset: () => void }) {
  return (
    <html lang="en" data-bs-theme="day">
      <body>
        <title>Jeito stopped</title>
        <main id="main" className="p-4">
          <div className="panel empty" role="alert" style={{ maxWidth: 560, margin: '12vh auto 0' }}>
            <h1>This page could not be shown</h1>
            <p>Nothing recorded is lost. Try again; if it stays, reload, and tell whoever runs Jeito at your school.</p>
            <button type="button" className="btn btn-primary" onClick={reset}>
              Try again
            </button>
          </div>
        </main>
      </body>
    </html>
  );
}
