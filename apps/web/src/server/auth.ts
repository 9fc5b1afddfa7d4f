import 'server-only';
import { credential, person, signIn, verification } from '@clembo/store';
import { addMail } from '@clembo/store';
import { betterAuth } from 'better-auth';
import { drizzleAdapter } from 'better-auth/adapters/drizzle';
import { ownAddress } from './address';
import { store } from './store';

/** A password has at least so many characters. */
export const LEAST_PASSWORD = 10;

const make = () => {
  const { db } = store();
  const address = ownAddress();
  return betterAuth({
    baseURL: address,
    secret: secret(),
    telemetry: { enabled: false },
    logger: { level: 'error' },
    database: drizzleAdapter(db, {
      provider: 'pg',
      schema: { user: person, session: signIn, account: credential, verification },
    }),
    emailAndPassword: {
      enabled: true,
      minPasswordLength: LEAST_PASSWORD,
      maxPasswordLength: 200,
      revokeSessionsOnPasswordReset: true,
      resetPasswordTokenExpiresIn: 3600,
      sendResetPassword: async ({ user, token }) => {
        await addMail(db, {
          to: user.email,
          subject: 'A new password for Clembo',
          text: `Somebody asked for a new password for ${user.email}.\n\nChoose it here within an hour:\n${address}/reset/${token}\n\nIf it was not you, let it be: nothing happens then.\n`,
        });
      },
    },
    session: { expiresIn: 14 * 86_400, updateAge: 86_400, cookieCache: { enabled: false } },
    advanced: {
      cookiePrefix: 'clembo',
      useSecureCookies: address.startsWith('https:'),
      // Pages are opened from links in mails.
      defaultCookieAttributes: { sameSite: 'lax', httpOnly: true },
    },
  });
};

const kept = globalThis as { clemboAuth?: ReturnType<typeof make> };

/** Who signs in, by the library that does it; made when it is first needed. Only the server calls it. */
export const auth = () => (kept.clemboAuth ??= make());

/** What sessions are signed with. `npm start` makes one and keeps it; for real it is set in the environment. */
function secret(): string {
  const said = process.env.CLEMBO_SECRET;
  if (!said || said.length < 32)
    throw new Error('CLEMBO_SECRET is not set, or shorter than 32 characters; nobody can sign in without it.');
  return said;
}
