'use client';
import Link from 'next/link';
import { useState } from 'react';
import { ask } from '@/ui/ask';
import { Form, TextField } from '@/ui/Form';

const LEAST = 10;
/** A field for a password that is chosen. */
export const NEW_PASSWORD = {
  type: 'password',
  autoComplete: 'new-password',
  minLength: LEAST,
  maxLength: 200,
  note: `At least ${LEAST} characters; a few words are easy to keep in mind.`,
} as const;

/** Goes on with everything read anew: who is signed in has changed. */
const goTo = (path: string) => location.assign(path);

/** Signs in, and leads to where somebody wanted to go. */
export function SignIn({ to }: { to: string }) {
  return (
    <Form
      action="Sign in"
      onSubmit={async ({ email, password }) => {
        await ask('/api/session', { method: 'POST', json: { email, password } });
        goTo(to);
      }}
      beside={
        <Link href="/reset" className="text-kelp hover:underline">
          I do not know my password
        </Link>
      }
    >
      <TextField label="E-mail address" name="email" type="email" autoComplete="username" autoFocus />
      <TextField label="Password" name="password" type="password" autoComplete="current-password" />
    </Form>
  );
}

/** Makes the first account. */
export function First({ code }: { code: string }) {
  return (
    <Form
      action="Make the account"
      onSubmit={async ({ name, email, password }) => {
        await ask('/api/people', { method: 'POST', json: { name, email, password, code } });
        goTo('/people');
      }}
    >
      <TextField label="Your name" name="name" autoComplete="name" maxLength={100} autoFocus />
      <TextField label="E-mail address" name="email" type="email" autoComplete="username" />
      <TextField label="Password" name="password" {...NEW_PASSWORD} />
    </Form>
  );
}

/** Takes an invitation, with an account that is made for it. */
export function Join({ token, email }: { token: string; email: string }) {
  return (
    <Form
      action="Join"
      onSubmit={async ({ name, password }) => {
        await ask('/api/invitations/taken', { method: 'POST', json: { token, account: { name, password } } });
        goTo('/');
      }}
    >
      <TextField label="E-mail address" name="email" value={email} readOnly />
      <TextField label="Your name" name="name" autoComplete="name" maxLength={100} autoFocus />
      <TextField label="Password" name="password" {...NEW_PASSWORD} />
    </Form>
  );
}

/** Takes an invitation with the account that is signed in. */
export function JoinAs({ token, name }: { token: string; name: string }) {
  return (
    <Form
      action={`Join as ${name}`}
      onSubmit={async () => {
        await ask('/api/invitations/taken', { method: 'POST', json: { token } });
        goTo('/');
      }}
    >
      {null}
    </Form>
  );
}

/** Asks for a mail by which a new password can be chosen. */
export function AskForPassword() {
  const [sent, setSent] = useState(false);
  if (sent)
    return (
      <p role="status" className="mt-5">
        If somebody has an account with that address, a mail is on its way to it. It holds for an hour.
      </p>
    );
  return (
    <Form
      action="Send me a mail"
      onSubmit={async ({ email }) => {
        await ask('/api/password', { method: 'POST', json: { email } });
        setSent(true);
      }}
    >
      <TextField label="E-mail address" name="email" type="email" autoComplete="username" autoFocus />
    </Form>
  );
}

/** Chooses a new password by the secret of that mail. */
export function ChoosePassword({ token }: { token: string }) {
  return (
    <Form
      action="Keep it"
      onSubmit={async ({ password }) => {
        await ask('/api/password', { method: 'PUT', json: { token, password } });
        goTo('/sign-in');
      }}
    >
      <TextField label="New password" name="password" autoFocus {...NEW_PASSWORD} />
    </Form>
  );
}
