import 'server-only';
import { createHmac, timingSafeEqual } from 'node:crypto';
import { ownAddress } from './address';
import { isSame } from './same';

const sign = (what: string, id: string): Buffer =>
  createHmac('sha256', process.env.CLEMBO_SECRET ?? '')
    .update(`${what} ${id}`)
    .digest()
    .subarray(0, 24);

const bytesOf = (id: string): Buffer => Buffer.from(id.replaceAll('-', ''), 'hex');
const idOf = (bytes: Buffer): string =>
  bytes.toString('hex').replace(/^(.{8})(.{4})(.{4})(.{4})(.{12})$/, '$1-$2-$3-$4-$5');

/** The secret part of the address of a shared page: its id, and what only this server can make of it. */
export const tokenOf = (id: string): string => Buffer.concat([bytesOf(id), sign('shared', id)]).toString('base64url');

/** The page that an address is of; null for what this server never made. */
export function sharedIdOf(token: string): string | null {
  if (!/^[\w-]{54}$/.test(token)) return null;
  const bytes = Buffer.from(token, 'base64url');
  if (bytes.length !== 40) return null;
  const id = idOf(bytes.subarray(0, 16));
  return timingSafeEqual(bytes.subarray(16), sign('shared', id)) ? id : null;
}

export const addressOfShared = (id: string): string => `${ownAddress()}/s/${tokenOf(id)}`;

/** What a browser shows to say that its password was right; another password makes it void. */
export const passOf = (id: string, password: string): string => sign(`pass ${password}`, id).toString('base64url');

export const isPass = (said: string, id: string, password: string): boolean => isSame(said, passOf(id, password));
