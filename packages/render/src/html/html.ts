import { type ContentTable, type FontMetrics, HAIRLINE, INK, KELP, PAPER, type Scene } from '@clembo/scene';
import { fontFaceRules, writeSvg } from '../svg/svg';
import { escapeXml } from '../xml';
import { PLAYER, PLAYER_HASH, playerHtml } from './player';
import { RENEWED, WATCH_STYLE, WATCHER, WATCHER_HASH } from './watcher';
import { SAID_STYLE, type SaidHtml, saidHtml } from './said';
import { hopsHtml, PRESENT_BUTTON, PRESENT_STYLE, PRESENTER, PRESENTER_HASH } from './presenter';

export interface HtmlOptions {
  fonts: FontMetrics;
  /** Bytes of the font files as base64, by file name. */
  embed: Map<string, string>;
  /** What the pages are called; their titles where nobody says. */
  names?: string[];
  /** The pages are to be presented from the file. */
  present?: boolean;
  /** The pages are shown to whoever has their address: nothing is written but what is to be seen on them. */
  shared?: SharedHtml | undefined;
}

export interface SharedHtml {
  /** Below each other, or side by side. */
  lay: 'pages' | 'wall';
  /** Whether it is to be asked for changes. */
  live: boolean;
  /** What was said about each of the pages, where that is to be seen. */
  said?: readonly (readonly SaidHtml[])[];
}

/**
 * Writes pages as one HTML file that opens anywhere, without a network: each page as a drawing in its true proportions
 * and as a table. Printed, each page takes a sheet of its own size. Only files with pictures
 * that play, and files that present themselves, run a script.
 */
export function writeHtml(scenes: Scene[], { fonts, embed, names = [], present = false, shared }: HtmlOptions): string {
  const [first] = scenes;
  if (!first) throw new Error('a page of HTML needs at least one page');
  // What a page is called by those who made it is for them.
  const nameOf = (scene: Scene, k: number) => (shared ? undefined : names[k]) ?? scene.title;
  const plays = scenes.some((s) => (s.play?.length ?? 0) > 0);
  const scripts = `${plays ? ` 'sha256-${PLAYER_HASH}'` : ''}${present ? ` 'sha256-${PRESENTER_HASH}'` : ''}${shared?.live ? ` 'sha256-${WATCHER_HASH}'` : ''}`;
  const contents =
    scenes.length > 1
      ? `<nav aria-label="Pages"><ol>${scenes.map((s, k) => `<li><a href="#page-${k + 1}">${escapeXml(nameOf(s, k))}</a></li>`).join('')}</ol></nav>`
      : '';
  const pages = scenes.map((scene, k) => {
    const said = saidHtml(scene, k + 1, shared?.lay === 'wall' ? [] : (shared?.said?.[k] ?? []));
    return `<section id="page-${k + 1}" aria-label="${escapeXml(nameOf(scene, k))}" lang="${scene.language}" style="page:sheet${k + 1}"><div class="sheet" style="aspect-ratio:${scene.width}/${scene.height};max-width:${widest(scene)};--r:${(scene.width / scene.height).toFixed(4)}">${writeSvg(scene, { fonts, sized: false, bare: shared !== undefined })}${hopsHtml(scene, scenes)}${said.marks}</div>${playerHtml(scene.play ?? [], k)}${shared ? '' : tableHtml(scene.content)}${said.list}</section>`;
  });
  const sizes = scenes.map((s, k) => `@page sheet${k + 1}{size:${s.width}pt ${s.height}pt;margin:0}`).join('');
  return [
    `<!doctype html><html lang="${first.language}"><head><meta charset="utf-8"><meta name="viewport" content="width=device-width,initial-scale=1">`,
    shared ? '<meta name="robots" content="noindex,nofollow">' : '',
    `<meta http-equiv="Content-Security-Policy" content="default-src 'none'${shared?.live ? ";connect-src 'self'" : ''};style-src 'unsafe-inline';font-src data:;img-src data:${scripts === '' ? '' : `;script-src${scripts}`}">`,
    `<title>${escapeXml(first.title)}</title><style>${fontFaceRules(scenes, fonts, embed)}${STYLE}${PRESENT_STYLE}${shared ? WATCH_STYLE + WALL_STYLE + SAID_STYLE : ''}${sizes}</style></head><body${shared?.lay === 'wall' ? ' class="wall"' : ''}>`,
    `${contents}${present ? PRESENT_BUTTON : ''}<main>${pages.join('')}</main>${present ? `<script>${PRESENTER}</script>` : ''}${plays ? `<script>${PLAYER}</script>` : ''}${shared?.live ? `${RENEWED}<script>${WATCHER}</script>` : ''}</body></html>\n`,
  ].join('');
}

/** As wide as the window, and as high: a page that is seen as a whole, and larger where someone widens the window. */
const widest = ({ width, height }: Scene): string => `max(640px,calc((100vh - 96px)*${(width / height).toFixed(4)}))`;

const DESK = '#E9E6DF';
const STYLE = [
  `body{margin:0;background:${DESK};color:${INK};font:15px/1.4 "Sofia Sans",system-ui,sans-serif}`,
  'main{padding:24px}section{margin:0 auto 40px}',
  `.sheet{margin:0 auto;background:${PAPER};box-shadow:0 2px 10px #1e2a3226}.sheet svg{display:block;width:100%;height:100%}`,
  `nav{padding:20px 24px 0}nav ol{margin:0;padding:0;list-style:none;display:flex;flex-wrap:wrap;gap:4px 20px}a{color:${KELP}}`,
  `details{max-width:1100px;margin:12px auto 0}summary{cursor:pointer;color:${KELP}}.wide{overflow:auto}`,
  `.play{max-width:900px;margin:16px auto 0;background:${PAPER};padding:14px 18px}.play img{display:none;width:100%}.play img.on{display:block}.play p{margin:0 0 6px}.play div{display:flex;gap:12px;align-items:center;margin-top:8px}.play input{flex:1;accent-color:${KELP}}.play button{font:inherit;padding:3px 12px;border:1px solid ${HAIRLINE};border-radius:5px;background:${PAPER}}`,
  `table{border-collapse:collapse;margin-top:8px;background:${PAPER};width:100%}caption{text-align:left;font-weight:600;padding:6px 10px}th,td{text-align:left;padding:4px 10px;border-top:1px solid ${HAIRLINE};vertical-align:top;font-variant-numeric:tabular-nums}thead th{border-top:0}tbody th{font-weight:400}`,
  '@media print{body{background:none}main{padding:0}nav,details,.play{display:none}section{margin:0;break-after:page}section:last-child{break-after:auto}.sheet{max-width:none!important;box-shadow:none}}',
].join('');

/** Pages side by side, the first as wide as all; on a phone below each other. */
const WALL_STYLE = [
  '.wall nav,.wall .play{display:none}.wall:not(.presenting) main{padding:14px;display:grid;gap:14px;grid-template-columns:repeat(auto-fit,minmax(min(100%,560px),1fr));align-items:start}',
  '.wall:not(.presenting) section{margin:0}.wall:not(.presenting) .sheet{max-width:none!important}.wall .present{opacity:0}.wall .present:hover,.wall .present:focus{opacity:1}',
].join('');

/** The same content as a table. */
function tableHtml({ heads, named, rows }: ContentTable): string {
  if (rows.length === 0) return '';
  const head = heads.map((h) => `<th scope="col">${escapeXml(h)}</th>`).join('');
  const body = rows.map(({ cells }) => {
    const own = cells.map((cell, k) =>
      k === named ? `<th scope="row">${escapeXml(cell)}</th>` : `<td>${escapeXml(cell)}</td>`,
    );
    return `<tr>${own.join('')}</tr>`;
  });
  return `<details><summary>${heads
    .map((h) => escapeXml(h))
    .filter(Boolean)
    .join(
      ', ',
    )}</summary><div class="wide"><table><thead><tr>${head}</tr></thead><tbody>${body.join('')}</tbody></table></div></details>`;
}
