import { type Letter, sendMail, type Store } from '@clembo/store';
import { createTransport } from 'nodemailer';

/**
 * Sends what waits by the server of mail that is set (SMTP_URL; MAIL_FROM says who writes). Without one, letters stay
 * in the mailbox. What cannot be sent waits for the next time.
 */
export function mailer(store: Store, url = process.env.SMTP_URL, from = process.env.MAIL_FROM ?? 'clembo@localhost') {
  if (!url) return null;
  const transport = createTransport(url);
  const send = async ({ to, subject, text }: Letter): Promise<void> => {
    await transport.sendMail({ from, to, subject, text });
  };
  return () => sendMail(store, send);
}
