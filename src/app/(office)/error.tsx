'use client';

import Button from 'react-bootstrap/Button';
export default function ErrorPage({ reset }: { error: Error; reset: () => void }) {
  return (
    <main id="main">
      <div className="column">
        <div className="panel empty" role="alert">
          <h1>This page could not be read</h1>
          <p>Nothing recorded is lost. Try again; if it stays, go to the board and come back.</p>
          <Button variant="primary" onClick={reset}>
            Try again
          </Button>
        </div>
      </div>
    </main>
  );
}
