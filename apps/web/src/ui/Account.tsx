'use client';
import { Menu, MenuButton, MenuItem, MenuItems } from '@headlessui/react';
import { UserRound } from 'lucide-react';
import Link from 'next/link';
import { ask } from './ask';
import { wrong } from './Toasts';
import { signOut, useMe } from './useMe';
import { noticePath, useNotices } from './useNotices';

const initials = (name: string): string =>
  name
    .split(/\s+/)
    .flatMap((word) => [...word].slice(0, 1))
    .filter((_, k, all) => k === 0 || k === all.length - 1)
    .join('')
    .toUpperCase();

const ENTRY = 'choice w-full';

/** Who is signed in, and what concerns them and their workspace rather than a plan. */
export function Account() {
  const found = useMe();
  const me = found?.me ?? null;
  const isOwner = found !== null && (!found.needed || me?.role === 'owner');
  const { notices, read } = useNotices(me !== null);
  const fresh = notices.filter((n) => n.isNew).length;
  const others = found?.workspaces.filter((w) => !w.now) ?? [];
  const goTo = (workspace: string) =>
    ask('/api/session', { method: 'PUT', json: { workspace } }).then(() => location.assign('/'), wrong);
  return (
    <Menu>
      <MenuButton
        aria-label={me ? `Account of ${me.name}${fresh > 0 ? `, ${fresh} new for you` : ''}` : 'People and settings'}
        title={me ? `${me.name}, ${me.role ?? 'no workspace'}` : 'People and settings'}
        className="relative flex size-7 shrink-0 items-center justify-center rounded-full border border-line text-[12px] font-semibold text-soft hover:border-soft"
      >
        {me ? initials(me.name) : <UserRound size={15} aria-hidden />}
        {fresh > 0 && (
          <span className="absolute -top-1 -right-1 flex size-4 items-center justify-center rounded-full bg-marigold text-[10px] text-ink">
            {fresh}
          </span>
        )}
      </MenuButton>
      <MenuItems anchor={{ to: 'bottom end', gap: 6 }} className="panel min-w-56">
        {me && (
          <div className="border-b border-line px-2.5 pt-1 pb-2">
            <p className="font-semibold">{me.name}</p>
            <p className="text-[14px] text-soft">
              {me.email}
              {me.role && ` · ${me.role}`}
            </p>
          </div>
        )}
        {notices.slice(0, 5).map((n) => (
          <MenuItem key={n.commentId}>
            <Link href={noticePath(n)} className="choice block max-w-72 leading-snug" onClick={read}>
              <span className={`block text-[13.5px] ${n.isNew ? 'font-semibold' : 'text-soft'}`}>
                {n.person ?? 'Somebody'}, {n.plan}
              </span>
              <span className="line-clamp-2 text-[14px]">{n.text}</span>
            </Link>
          </MenuItem>
        ))}
        {notices.length > 0 && <hr className="my-1 border-line" />}
        {isOwner && (
          <MenuItem>
            <Link href="/people" className={ENTRY}>
              People
            </Link>
          </MenuItem>
        )}
        <MenuItem>
          <Link href="/history" className={ENTRY}>
            Who did what
          </Link>
        </MenuItem>
        {me && (
          <MenuItem>
            <Link href="/account" className={ENTRY}>
              Name and password
            </Link>
          </MenuItem>
        )}
        {others.map((w) => (
          <MenuItem key={w.id}>
            <button type="button" className={ENTRY} onClick={() => void goTo(w.id)}>
              Go to “{w.name}”
            </button>
          </MenuItem>
        ))}
        {me && (
          <MenuItem>
            <button type="button" className={ENTRY} onClick={() => void signOut()}>
              Sign out
            </button>
          </MenuItem>
        )}
      </MenuItems>
    </Menu>
  );
}
