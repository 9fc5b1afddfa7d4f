import { listMail } from '@clembo/store';
import type { Metadata } from 'next';
import { notFound } from 'next/navigation';
import { pageAccess } from '@/server/access';
import { store } from '@/server/store';
import { whenChanged } from '@/server/when';
import { Frame } from '@/ui/Frame';

export const dynamic = 'force-dynamic';
export const metadata: Metadata = { title: 'Mailbox' };

/** Stands in for a server of mail, as long as none is set: what would have been sent. For owners only. */
export default async function Page() {
  const access = await pageAccess();
  if (process.env.SMTP_URL || access.role !== 'owner' || access.only) notFound();
  const letters = await listMail(store(), access);
  return (
    <Frame stage={null} plan={null}>
      <div className="h-full overflow-auto">
        <div className="mx-auto max-w-[820px] px-8 pt-7 pb-12">
          <h1 className="font-serif text-[26px] font-semibold">Mailbox</h1>
          <p className="mt-1 text-soft">
            No server for mail is set (SMTP_URL), so letters stay here. Hand on what is meant for others.
          </p>
          {letters.length === 0 && <p className="mt-6">Nothing was written yet.</p>}
          <ul className="mt-6 flex flex-col gap-4">
            {letters.map((l) => (
              <li key={l.id} className="rounded-lg border border-line bg-paper px-6 py-4">
                <p className="flex items-baseline gap-4">
                  <b className="min-w-0 flex-1 font-serif text-[17px] font-semibold">{l.subject}</b>
                  <span className="text-[14px] text-soft">{whenChanged(l.createdAt)}</span>
                </p>
                <p className="text-[14px] text-soft">to {l.to}</p>
                <p className="mt-2 text-[15px] break-words whitespace-pre-wrap">{withLinks(l.text)}</p>
              </li>
            ))}
          </ul>
        </div>
      </div>
    </Frame>
  );
}

/** A text whose addresses can be clicked. */
const withLinks = (text: string) =>
  text.split(/(https?:\/\/[^\s]+)/).map((part, k) =>
    k % 2 === 1 ? (
      // biome-ignore lint: parts stand where they stand
      <a key={k} href={part} className="text-kelp underline">
        {part}
      </a>
    ) : (
      part
    ),
  );
