import { HAIRLINE, INK, LANGUAGES, type LanguageCode, PAPER, type Point, type Scene, SOFT_INK } from '@clembo/scene';
import { escapeXml } from '../xml';

/** What one person said, and on which day, in words. */
interface SpokenHtml {
  by: string | null;
  day: string;
  text: string;
}

/** What was said about a page, with its answers. */
export interface SaidHtml extends SpokenHtml {
  number: number;
  /** Where on the page it is about, in points; null where it is about all of it. */
  at: Point | null;
  answers: readonly SpokenHtml[];
}

const spoken = ({ by, day, text }: SpokenHtml): string =>
  `<p class="by">${by === null ? '' : `<b>${escapeXml(by)}</b> `}${escapeXml(day)}</p><p class="text">${escapeXml(text)}</p>`;

const percent = (share: number): string => `${Math.round(share * 1e4) / 100}%`;

/** Numbered marks over a page, which lead to what was said, and the list of that below it. */
export function saidHtml(scene: Scene, page: number, said: readonly SaidHtml[]): { marks: string; list: string } {
  if (said.length === 0) return { marks: '', list: '' };
  const heading = escapeXml(LANGUAGES[scene.language as LanguageCode].comments);
  const marks = said.flatMap(({ number, at }) =>
    at
      ? [
          `<a class="mark" href="#said-${page}-${number}" aria-label="${heading} ${number}" style="left:${percent(at.x / scene.width)};top:${percent(at.y / scene.height)}">${number}</a>`,
        ]
      : [],
  );
  const items = said.map(
    (s) =>
      `<li id="said-${page}-${s.number}" value="${s.number}">${spoken(s)}${s.answers.map((a) => `<div class="answer">${spoken(a)}</div>`).join('')}</li>`,
  );
  return {
    marks: marks.join(''),
    list: `<div class="said"><h2>${heading}</h2><ol>${items.join('')}</ol></div>`,
  };
}

export const SAID_STYLE = [
  `.mark{position:absolute;transform:translate(-50%,calc(-100% - 3px));min-width:22px;height:22px;box-sizing:border-box;border-radius:11px;border:1px solid ${PAPER};background:${INK};color:${PAPER};font:600 12px/20px "Sofia Sans",system-ui,sans-serif;text-align:center;text-decoration:none}`,
  `.said{max-width:760px;margin:18px auto 0;background:${PAPER};padding:14px 22px 16px;border-radius:6px}.said h2{font:600 17px/1.3 "Sofia Sans",system-ui,sans-serif;margin:0 0 4px}.said ol{margin:0;padding-left:26px}.said li{padding:8px 0;border-top:1px solid ${HAIRLINE}}.said li:first-child{border-top:0}.said li:target{background:#E3A01922}.said p{margin:0}.said .by{font-size:13.5px;color:${SOFT_INK}}.said .by b{color:${INK}}.said .text{white-space:pre-wrap;overflow-wrap:anywhere}.said .answer{margin-top:6px;padding-left:10px;border-left:2px solid ${HAIRLINE}}`,
  '.presenting .mark,.presenting .said{display:none}@media print{.mark,.said{display:none}}',
].join('');
