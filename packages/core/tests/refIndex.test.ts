import { expect, test } from '@jest/globals';
import { RefIndex } from '../src/outline/refIndex';
import { seeded } from './helpers';

test('answers as a Map does, with the first of several; 300 random lists', () => {
  for (let seed = 0; seed < 300; seed++) {
    const random = seeded(seed);
    const ref = () => ['', 'A', 'ä', '1', '1.1', 'ref ', '🙂'][Math.floor(random() * 7)]! + Math.floor(random() * 40);
    const items = Array.from({ length: Math.floor(random() * 120) }, () => ({ ref: ref() }));
    const map = new Map<string, number>();
    items.forEach((item, i) => !map.has(item.ref) && map.set(item.ref, i));
    const index = new RefIndex(items);
    for (let k = 0; k < 100; k++) {
      const wanted = ref();
      expect([wanted, index.get(wanted), index.has(wanted)]).toEqual([wanted, map.get(wanted), map.has(wanted)]);
    }
    expect([...index.isDouble]).toEqual(items.map((item, i) => (map.get(item.ref) === i ? 0 : 1)));
  }
});
