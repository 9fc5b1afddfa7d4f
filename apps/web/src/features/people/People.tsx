'use client';
import { Mail, Trash2 } from 'lucide-react';
import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { ask } from '@/ui/ask';
import { Frame } from '@/ui/Frame';
import { Form, TextField } from '@/ui/Form';
import { Pick } from '@/ui/Pick';
import { toast, wrong } from '@/ui/Toasts';
import { type Settings, WorkspaceForm } from './WorkspaceForm';

type Role = 'owner' | 'editor' | 'commenter' | 'viewer';

interface Member {
  account: string;
  name: string;
  email: string;
  role: Role | null;
  plans: { planId: string; plan: string; role: Role }[];
}

interface Props {
  /** The account that looks. */
  me: string | null;
  members: Member[];
  invited: { id: string; email: string; role: Role; plan: string | null; by: string | null; until: string }[];
  plans: { id: string; name: string }[];
  /** Whether mail really goes out. */
  hasMail: boolean;
  settings: Settings;
}

const ROLES: [Role, string][] = [
  ['owner', 'owner: everything, and who belongs'],
  ['editor', 'editor: changes plans and pages'],
  ['commenter', 'commenter: looks and comments'],
  ['viewer', 'viewer: looks'],
];
const short = (title: string): string => title.split(':')[0]!;
const WHOLE = 'all plans';

/** Who belongs to the workspace, what they may do, and who is asked in. */
export function People({ me, members, invited, plans, hasMail, settings }: Props) {
  const router = useRouter();
  const [role, setRole] = useState<Role>('editor');
  const [plan, setPlan] = useState('');
  const [round, setRound] = useState(0);
  const change = (account: string, json: object) =>
    ask(`/api/people/${account}`, { method: 'PATCH', json }).then(() => router.refresh(), wrong);
  const remove = async ({ account, name }: Member) => {
    try {
      await ask(`/api/people/${account}`, { method: 'DELETE' });
      router.refresh();
      toast(`${name} was removed.`);
    } catch (error) {
      wrong(error);
    }
  };
  const takeBack = (id: string) =>
    ask(`/api/invitations/${id}`, { method: 'DELETE' }).then(() => router.refresh(), wrong);
  const named = (id: string) => plans.find((p) => p.id === id)?.name ?? '';
  return (
    <Frame stage={null} plan={null}>
      <div className="h-full overflow-auto">
        <div className="mx-auto max-w-[1240px] px-8 pt-7 pb-12">
          <div className="flex items-baseline gap-4">
            <h1 className="font-serif text-[26px] font-semibold">People</h1>
            {!hasMail && (
              <Link href="/mailbox" className="quiet ml-auto py-1">
                <Mail size={15} aria-hidden /> Mailbox
              </Link>
            )}
          </div>
          <table className="mt-5 w-full border-collapse text-left">
            <thead>
              <tr className="border-b border-line text-[14px] text-soft">
                <th className="py-1.5 font-normal">Name</th>
                <th className="font-normal">E-mail address</th>
                <th className="font-normal">In the workspace</th>
                <th className="font-normal">Otherwise in single plans</th>
                <th>
                  <span className="sr-only">Remove</span>
                </th>
              </tr>
            </thead>
            <tbody>
              {members.map((m) => (
                <tr key={m.account} className="border-b border-line align-top">
                  <td className="py-2.5 pr-4 font-semibold">
                    {m.name}
                    {m.account === me && <span className="font-normal text-soft"> (you)</span>}
                  </td>
                  <td className="py-2.5 pr-4">{m.email}</td>
                  <td className="py-1.5 pr-4">
                    <RolePick
                      label={`Role of ${m.name}`}
                      role={m.role}
                      none="guest: only single plans"
                      onChange={(r) => void change(m.account, { role: r })}
                    />
                  </td>
                  <td className="py-1.5">
                    <ul className="flex flex-col gap-1">
                      {m.plans.map((p) => (
                        <li key={p.planId} className="flex items-center gap-2">
                          <span className="max-w-60 truncate" title={p.plan}>
                            {p.plan}
                          </span>
                          <RolePick
                            label={`Role of ${m.name} in ${p.plan}`}
                            role={p.role}
                            none="as in the workspace"
                            onChange={(r) => void change(m.account, { planId: p.planId, role: r })}
                          />
                        </li>
                      ))}
                      <li>
                        <AddPlan
                          label={`Another plan for ${m.name}`}
                          plans={plans.filter((p) => !m.plans.some((own) => own.planId === p.id))}
                          onTake={(planId) => void change(m.account, { planId, role: 'viewer' })}
                        />
                      </li>
                    </ul>
                  </td>
                  <td className="py-2.5 text-right">
                    <RemoveButton name={m.name} onRemove={() => void remove(m)} />
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
          <div className="mt-9 grid grid-cols-[minmax(0,440px)_minmax(0,1fr)] gap-12">
            <section aria-label="Ask somebody in">
              <h2 className="font-serif text-[19px] font-semibold">Ask somebody in</h2>
              <Form
                key={round}
                action="Send the invitation"
                onSubmit={async ({ email }) => {
                  await ask('/api/invitations', {
                    method: 'POST',
                    json: { email, role, planId: plan === '' ? null : plan },
                  });
                  setRound((r) => r + 1);
                  router.refresh();
                  toast(hasMail ? `A mail is on its way to ${email}.` : `The mail to ${email} lies in the mailbox.`);
                }}
              >
                <TextField label="E-mail address" name="email" type="email" autoComplete="off" />
                <div className="flex flex-wrap gap-4">
                  <Pick label="as" value={role} options={ROLES} shown={short} onChange={(r) => setRole(r as Role)} />
                  <Pick
                    label="to"
                    value={plan}
                    options={[['', WHOLE], ...plans.map((p): [string, string] => [p.id, p.name])]}
                    onChange={setPlan}
                  />
                </div>
                {plan !== '' && (
                  <p className="text-[14px] text-soft">They see “{named(plan)}” and nothing else of the workspace.</p>
                )}
              </Form>
            </section>
            <section aria-label="Asked">
              <h2 className="font-serif text-[19px] font-semibold">Asked, and not here yet</h2>
              {invited.length === 0 ? (
                <p className="mt-3 text-soft">Nobody.</p>
              ) : (
                <ul className="mt-3 divide-y divide-line border-y border-line">
                  {invited.map((i) => (
                    <li key={i.id} className="flex items-center gap-3 py-2">
                      <span className="min-w-0 flex-1">
                        <b className="font-semibold">{i.email}</b>
                        <span className="text-soft">
                          {' '}
                          as {i.role}
                          {i.plan && ` of “${i.plan}”`}
                          {i.by && `, by ${i.by}`}, holds until {i.until}
                        </span>
                      </span>
                      <button type="button" className="quiet py-1" onClick={() => void takeBack(i.id)}>
                        Take back
                      </button>
                    </li>
                  ))}
                </ul>
              )}
            </section>
          </div>
          <WorkspaceForm settings={settings} />
        </div>
      </div>
    </Frame>
  );
}

const NONE = '';

function RolePick({
  label,
  role,
  none,
  onChange,
}: {
  label: string;
  role: Role | null;
  none: string;
  onChange: (role: Role | null) => void;
}) {
  return (
    <select
      aria-label={label}
      className="rounded-md border border-line bg-paper px-2 py-1"
      value={role ?? NONE}
      onChange={(e) => onChange(e.target.value === NONE ? null : (e.target.value as Role))}
    >
      {ROLES.map(([value, title]) => (
        <option key={value} value={value} title={title}>
          {short(title)}
        </option>
      ))}
      <option value={NONE} title={none}>
        {short(none)}
      </option>
    </select>
  );
}

function AddPlan({
  label,
  plans,
  onTake,
}: {
  label: string;
  plans: { id: string; name: string }[];
  onTake: (planId: string) => void;
}) {
  return (
    <select
      aria-label={label}
      className="max-w-44 rounded-md border border-transparent bg-transparent px-1 py-1 text-[14px] text-soft hover:border-line"
      value=""
      onChange={(e) => e.target.value !== '' && onTake(e.target.value)}
    >
      <option value="">in another plan …</option>
      {plans.map((p) => (
        <option key={p.id} value={p.id}>
          {p.name}
        </option>
      ))}
    </select>
  );
}

/** Asks once more before somebody is removed. */
function RemoveButton({ name, onRemove }: { name: string; onRemove: () => void }) {
  const [asking, setAsking] = useState(false);
  return (
    <button
      type="button"
      aria-label={asking ? `Really remove ${name}` : `Remove ${name}`}
      className={asking ? 'quiet border-madder py-0.5 text-madder' : 'rounded p-1 text-soft hover:bg-line'}
      onClick={() => (asking ? onRemove() : setAsking(true))}
      onBlur={() => setAsking(false)}
    >
      {asking ? 'Really?' : <Trash2 size={15} />}
    </button>
  );
}
