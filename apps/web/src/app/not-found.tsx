import Link from 'next/link';

export default function NotFound() {
  return (
    <main className="mx-auto max-w-md pt-40 text-center">
      <h1 className="font-serif text-2xl font-semibold">There is nothing here (any more)</h1>
      <p className="mt-2 text-soft">It may have been deleted, or made into a plan already.</p>
      <Link href="/" className="action mt-5">
        To your plans
      </Link>
    </main>
  );
}
