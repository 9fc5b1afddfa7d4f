import type { ReactNode } from 'react';

/** A page before one is in: what is asked, on one sheet. */
export function Entrance({ title, note, children }: { title: string; note?: ReactNode; children?: ReactNode }) {
  return (
    <main className="flex min-h-full flex-col items-center justify-center gap-5 p-6">
      <p className="font-serif text-[22px] font-semibold">Clembo</p>
      <section className="w-full max-w-[400px] rounded-lg border border-line bg-paper px-8 py-7">
        <h1 className="font-serif text-[20px] leading-tight font-semibold">{title}</h1>
        {note && <p className="mt-1.5 text-soft">{note}</p>}
        {children}
      </section>
    </main>
  );
}
