'use client';

export default function Failed({ reset }: { reset: () => void }) {
  return (
    <main className="mx-auto max-w-md pt-40 text-center">
      <h1 className="font-serif text-2xl font-semibold">This page could not be shown</h1>
      <p className="mt-2 text-soft">
        The database may not be running. Nothing was changed; what you typed elsewhere is kept.
      </p>
      <button type="button" className="action mt-5" onClick={reset}>
        Try again
      </button>
    </main>
  );
}
