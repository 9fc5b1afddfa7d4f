import { describe, expect, test } from '@jest/globals';
import { spawn } from 'node:child_process';
import { createServer } from 'node:net';
import { freePort } from '../lib/cluster.mjs';
import { SetupError } from '../lib/say.mjs';
import { keepRunning, portTrouble, readDatabaseUrl } from '../lib/services.mjs';

const wait = (ms) => new Promise((r) => setTimeout(r, ms));

describe('a program that is kept running', () => {
  const lasting = () => spawn(process.execPath, ['-e', 'setInterval(() => {}, 1000)'], { stdio: 'ignore' });

  test('is started again when it is killed, and ends when it is stopped', async () => {
    const told = [];
    const begun = [];
    const service = keepRunning(
      'It',
      lasting,
      (words) => told.push(words),
      (pid) => begun.push(pid),
    );
    const first = service.pid();
    process.kill(first, 'SIGKILL');
    for (let k = 0; k < 100 && begun.length === 0; k++) await wait(50);
    expect(told).toEqual(['It ended by itself (SIGKILL); it is started again.']);
    expect(service.pid()).toBe(begun[0]);
    expect(service.pid()).not.toBe(first);
    await service.stop();
    expect(() => process.kill(service.pid(), 0)).toThrow();
    await wait(800);
    expect(begun.length).toBe(1);
  });

  test('that ends again and again is given up in words', async () => {
    const service = keepRunning(
      'It',
      () => spawn(process.execPath, ['-e', 'process.exit(3)']),
      () => {},
    );
    await expect(service.gaveUp).rejects.toThrow('It ended 4 times within a minute (exit code 3).');
    await service.stop();
  });
});

describe('what cannot be used is said before anything is begun', () => {
  test('ports', async () => {
    const port = await freePort();
    expect(await portTrouble(port)).toBeNull();
    const server = createServer().listen(port, '127.0.0.1');
    await new Promise((r) => server.on('listening', r));
    expect(await portTrouble(port)).toContain(`Port ${port} is in use`);
    server.close();
  });

  test.each(['nonsense', 'http://here/there'])('the database address %s', (text) => {
    expect(() => readDatabaseUrl(text)).toThrow(SetupError);
  });

  test('a database address is shown without its password', () => {
    expect(readDatabaseUrl('postgres://u:secret@h:5/db')).toEqual({ host: 'h:5', name: 'db' });
  });
});

describe('one more process', () => {
  const more = (args, env = {}) =>
    new Promise((done) => {
      const { DATABASE_URL: _, ...own } = process.env;
      const child = spawn(process.execPath, ['tools/more.mjs', ...args], { env: { ...own, ...env } });
      let said = '';
      child.stdout.on('data', (b) => (said += b));
      child.on('exit', (code) => done([code, said.trim()]));
    });

  test('is told what it lacks: what it is to be, and whose database', async () => {
    expect(await more([])).toEqual([1, expect.stringContaining('npm run more -- web')]);
    expect(await more(['web'])).toEqual([1, expect.stringContaining('DATABASE_URL is not set')]);
    expect(await more(['worker'], { DATABASE_URL: 'mysql://here' })).toEqual([
      1,
      expect.stringContaining('not the address of a PostgreSQL database'),
    ]);
  });
});
