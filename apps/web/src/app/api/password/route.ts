import { z } from 'zod';
import { answer, BadRequest, readBody } from '@/server/answer';
import { auth } from '@/server/auth';
import { Email, limitGuesses, limitMail, Password } from '@/server/signing';

const Asked = z.object({ email: Email });

/** Sends a mail by which a new password can be chosen. Whether anybody has that address is not said. */
export const POST = (request: Request): Promise<Response> =>
  answer(request, async () => {
    const { email } = await readBody(request, Asked);
    await limitMail(`password ${email}`);
    await auth().api.requestPasswordReset({ body: { email } });
  });

const Chosen = z.object({ token: z.string().min(10).max(200), password: Password });

/** Chooses a new password by the secret of that mail; one is signed out everywhere. */
export const PUT = (request: Request): Promise<Response> =>
  answer(request, async () => {
    const { token, password } = await readBody(request, Chosen);
    const answered = await auth().api.resetPassword({ body: { token, newPassword: password }, asResponse: true });
    if (answered.ok) return;
    await limitGuesses(request);
    throw new BadRequest('This address holds no more. Ask for a new mail.', 404);
  });
