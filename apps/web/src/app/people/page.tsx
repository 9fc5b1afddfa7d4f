import { House } from '@clembo/scene/brief';
import { AccessRefused, listPeople, listPlans, readSettings } from '@clembo/store';
import type { Metadata } from 'next';
import { First } from '@/features/people/Entrances';
import { People } from '@/features/people/People';
import { WorkspaceForm } from '@/features/people/WorkspaceForm';
import { isSignInNeeded, pageAccess } from '@/server/access';
import { store } from '@/server/store';
import { whenChanged } from '@/server/when';
import { Frame } from '@/ui/Frame';

export const dynamic = 'force-dynamic';
export const metadata: Metadata = { title: 'People' };

export default async function Page() {
  const access = await pageAccess();
  if (!(await isSignInNeeded())) {
    const settings = await readSettings(store(), access);
    return (
      <Frame stage={null} plan={null}>
        <div className="h-full overflow-auto">
          <div className="mx-auto grid max-w-[960px] grid-cols-[1fr_400px] gap-12 px-8 pt-9">
            <div>
              <h1 className="font-serif text-[26px] font-semibold">People</h1>
              <p className="mt-3 max-w-md">
                Nobody has an account: whoever sits at this machine sees and changes everything, and nobody else reaches
                it.
              </p>
              <p className="mt-3 max-w-md text-soft">
                The first account owns the workspace and asks others in: to work on all of it, on single plans, to
                comment, or only to look. From then on everybody signs in, also here.
              </p>
            </div>
            <section aria-label="The first account" className="rounded-lg border border-line bg-paper px-7 py-6">
              <h2 className="font-serif text-[19px] font-semibold">The first account</h2>
              <First code="" />
            </section>
          </div>
          <div className="mx-auto max-w-[960px] px-8 pb-12">
            <WorkspaceForm settings={{ ...settings, house: House.parse(settings.house) }} />
          </div>
        </div>
      </Frame>
    );
  }
  try {
    const [people, plans, settings] = await Promise.all([
      listPeople(store(), access),
      listPlans(store(), access),
      readSettings(store(), access),
    ]);
    return (
      <People
        me={access.account ?? null}
        members={people.members}
        invited={people.invited.map(({ expiresAt, ...i }) => ({ ...i, until: whenChanged(expiresAt) }))}
        plans={plans.map(({ id, name }) => ({ id, name }))}
        settings={{ ...settings, house: House.parse(settings.house) }}
        hasMail={Boolean(process.env.SMTP_URL)}
      />
    );
  } catch (error) {
    if (!(error instanceof AccessRefused)) throw error;
    return (
      <Frame stage={null} plan={null}>
        <p className="px-8 pt-9">{error.message}</p>
      </Frame>
    );
  }
}
