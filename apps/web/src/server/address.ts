import 'server-only';

/** The address that people open, for links in mails: BASE_URL, or where this process listens on loopback. */
export const ownAddress = (): string =>
  (process.env.BASE_URL ?? `http://127.0.0.1:${process.env.CLEMBO_PORT ?? 3000}`).replace(/\/+$/, '');

/** Whether only this machine reaches the server. */
export const isLoopback = (): boolean =>
  /^(127\.0\.0\.1|localhost|::1)$/.test(process.env.CLEMBO_BIND ?? '127.0.0.1') &&
  /^https?:\/\/(127\.0\.0\.1|localhost|\[::1\])(:\d+)?$/.test(ownAddress());
