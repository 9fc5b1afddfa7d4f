import 'server-only';
import { causesOf, faultLines } from '@clembo/store';
import pino from 'pino';

const isJson = process.env.CLEMBO_LOG === 'json';
const logger = pino({ base: { part: 'web', pid: process.pid } }, pino.destination({ dest: 2, sync: true }));

/** Writes a fault down: as a line of JSON where CLEMBO_LOG is `json`, otherwise for whoever watches the terminal. */
export function logFault(what: string, error: unknown): void {
  if (isJson) logger.error({ what, causes: causesOf(error) });
  else process.stderr.write(`${faultLines(what, error)}\n`);
}

/** Writes down that a request was answered; in JSON only. Neither its query nor what it carried is written. */
export function logAnswer(method: string, path: string, status: number, milliseconds: number): void {
  if (isJson) logger.info({ what: 'answer', method, path, status, milliseconds: Math.round(milliseconds) });
}
