import { Anchor, dayWords, LANGUAGES, type LanguageCode, pointOf, type Scene } from '@clembo/scene';
import type { SaidHtml } from '@clembo/render';
import type { OpenComment, Spoken } from '@clembo/store';

const DAY = 86_400_000;

/**
 * What was said about an exhibit, by its pages: each thread stands with the page on which its place is, and with the
 * first where it is about none. Numbers run through all of them.
 */
export function saidOn(scenes: readonly Scene[], threads: readonly OpenComment[]): SaidHtml[][] {
  const pages = scenes.map((): SaidHtml[] => []);
  if (scenes.length === 0) return pages;
  const words = LANGUAGES[scenes[0]!.language as LanguageCode];
  const spoken = ({ person, at, text }: Spoken) => ({
    by: person,
    day: dayWords(words, Math.floor(new Date(at).getTime() / DAY), 'medium'),
    text,
  });
  threads.forEach((thread, k) => {
    const place = Anchor.safeParse(thread.place);
    const points = scenes.map((scene) => (place.success ? pointOf(scene, place.data) : null));
    const on = Math.max(
      0,
      points.findIndex((p) => p !== null),
    );
    pages[on]!.push({
      ...spoken(thread),
      number: k + 1,
      at: points[on]!,
      answers: thread.answers.map(spoken),
    });
  });
  return pages;
}
