'use client';
import { SayBox } from './SayBox';
import { Thread } from './Thread';
import { type Anchor, isAbout, useComments } from './useComments';

/** What was said about one thing, in its margin, and a place to say more. */
export function AboutThis({ planId, anchor }: { planId: string; anchor: Anchor }) {
  const { found, again } = useComments(planId);
  if (!found) return null;
  const own = found.comments.filter((c) => c.answers === null && isAbout(c, anchor));
  const open = own.filter((c) => c.doneAt === null);
  if (own.length === 0 && !found.maySay) return null;
  return (
    <section aria-label="Comments" className="mt-4">
      <h3 className="font-semibold">Comments{open.length > 0 && ` (${open.length} open)`}</h3>
      <ul className="divide-y divide-line">
        {own.map((c) => (
          <Thread
            key={c.id}
            planId={planId}
            said={c}
            answers={found.comments.filter((a) => a.answers === c.id)}
            found={found}
            again={again}
          />
        ))}
      </ul>
      {found.maySay && (
        <div className="mt-1.5">
          <SayBox planId={planId} anchor={anchor} people={found.people} label="Say something" onSaid={again} />
        </div>
      )}
    </section>
  );
}
