import { describe, expect, test } from '@jest/globals';
import { refusal } from '@/server/guard';
import { ownPath } from '@/ui/ownPath';

describe('an address leads nowhere but here', () => {
  test.each(['/', '/plans/x/show?ref=A%201&margin', '/folios/1#2', '/people'])('%s is a path of ours', (path) => {
    expect(ownPath(path)).toBe(path);
  });

  // From memory: the usual ways to make a browser read another site in what looks like a path.
  test.each([
    undefined,
    '',
    'plans',
    '//evil.example',
    '/\\evil.example',
    '/\t/evil.example',
    '/\n/evil.example',
    'https://evil.example',
    'javascript:alert(1)',
    '\\\\evil.example',
    '/a\\b',
    ['/a', '/b'],
    '/sign-in?to=/x',
  ])('%p is none', (said) => {
    expect(ownPath(said)).toBe('/');
  });
});

describe('a request', () => {
  const asked = (headers: Record<string, string>, isPage = false, hosts?: string, base?: string) =>
    refusal(new Headers(headers), isPage, hosts, base);

  test('is answered under the names of this server only', () => {
    expect(asked({ host: '127.0.0.1:3000' })).toBeNull();
    expect(asked({ host: 'clembo.saltmere.example' })).toContain('not known under that name');
    expect(asked({ host: 'clembo.saltmere.example' }, false, 'x, clembo.saltmere.example')).toBeNull();
    expect(asked({ host: 'Clembo.Saltmere.example' }, false, '', 'https://clembo.saltmere.example')).toBeNull();
    expect(asked({ host: 'evil.example' }, false, '', 'https://clembo.saltmere.example')).not.toBeNull();
    for (const host of ['', '127.0.0.1:3000@evil.example', 'evil.example/127.0.0.1', '127.0.0.1.evil.example'])
      expect(asked({ host })).not.toBeNull();
  });

  test('of another site is refused, but for a link to a page that is followed', () => {
    const host = 'localhost:3000';
    expect(asked({ host, origin: 'http://localhost:3000' })).toBeNull();
    expect(asked({ host, origin: 'http://localhost:3001' })).not.toBeNull();
    expect(asked({ host, origin: 'null' })).not.toBeNull();
    expect(asked({ host, 'sec-fetch-site': 'cross-site' })).not.toBeNull();
    expect(asked({ host, 'sec-fetch-site': 'cross-site', 'sec-fetch-mode': 'navigate' })).not.toBeNull();
    expect(asked({ host, 'sec-fetch-site': 'cross-site', 'sec-fetch-mode': 'navigate' }, true)).toBeNull();
    expect(asked({ host, 'sec-fetch-site': 'same-origin' })).toBeNull();
  });
});
