import { describe, expect, test } from '@jest/globals';
import { spawn } from 'node:child_process';
import { once } from 'node:events';
import { join } from 'node:path';
import { askerOf, namedProxies } from '../lib/asker.mjs';

describe('who asks', () => {
  const none = namedProxies('');
  const some = namedProxies('10.0.0.7, 192.168.0.0/16, fd00::/8');

  test.each([
    ['203.0.113.9', undefined, none, '203.0.113.9'],
    // Whoever says to be another is still who the connection says.
    ['203.0.113.9', '198.51.100.1', none, '203.0.113.9'],
    ['203.0.113.9', '198.51.100.1', some, '203.0.113.9'],
    ['10.0.0.7', '198.51.100.1', some, '198.51.100.1'],
    ['::ffff:10.0.0.7', '198.51.100.1', some, '198.51.100.1'],
    // What stands in front of the last stranger was written by that stranger.
    ['10.0.0.7', '1.2.3.4, 198.51.100.1, 192.168.4.4', some, '198.51.100.1'],
    ['fd00::12', '2001:db8::5', some, '2001:db8::5'],
    ['10.0.0.7', undefined, some, '10.0.0.7'],
  ])('%s saying %s', (remote, forwarded, isProxy, wanted) => expect(askerOf(remote, forwarded, isProxy)).toBe(wanted));

  test.each(['proxy.example', '10.0.0.0/33', '10.0.0.0/', '1.2.3'])('“%s” is no proxy', (setting) =>
    expect(() => namedProxies(setting)).toThrow(`“${setting}” is no address`),
  );

  test('a server that is started with it passes on who asks', async () => {
    const server = spawn(
      process.execPath,
      [
        '--import',
        join(import.meta.dirname, '../lib/web.mjs'),
        '-e',
        `require('http').createServer((q, a) => a.end(q.headers['x-forwarded-for'])).listen(0, '127.0.0.1', function () { console.log(this.address().port) })`,
      ],
      { env: { ...process.env, CLEMBO_PROXIES: '' }, stdio: ['ignore', 'pipe', 'inherit'] },
    );
    try {
      const [port] = await once(server.stdout, 'data');
      const asked = await fetch(`http://127.0.0.1:${String(port).trim()}/`, {
        headers: { 'X-Forwarded-For': '198.51.100.1' },
      });
      expect(await asked.text()).toBe('127.0.0.1');
    } finally {
      server.kill();
    }
  });
});
