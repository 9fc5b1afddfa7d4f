import type { PlayFrame } from '@clembo/scene';
import { escapeXml } from '../xml';

/** Shows pictures one after the other; the only script that a page may run, by its hash (SHA-256, base64). */
export const PLAYER = `for(const own of document.querySelectorAll('.play')){const pictures=[...own.querySelectorAll('img')],range=own.querySelector('input'),button=own.querySelector('button'),say=own.querySelector('p');let timer=0;const show=()=>{pictures.forEach((p,k)=>p.classList.toggle('on',k===+range.value));say.textContent=pictures[+range.value].alt};const stop=()=>{clearInterval(timer);timer=0;button.textContent='Play'};range.addEventListener('input',()=>{stop();show()});button.addEventListener('click',()=>{if(timer)return stop();if(+range.value>=pictures.length-1)range.value=0;show();button.textContent='Stop';timer=setInterval(()=>{if(+range.value>=pictures.length-1)return stop();range.value=+range.value+1;show()},350)});show()}`;
export const PLAYER_HASH = 'zM1kiFHKh9mZSYSc37whl8VeRDwJZCBh+mriz8h/auU=';

/** Pictures that play, with a slider and a button; the first without a script. */
export function playerHtml(frames: readonly PlayFrame[], page: number): string {
  if (frames.length === 0) return '';
  const pictures = frames.map(
    ({ title, words, data }, k) =>
      `<img src="${data}" alt="${escapeXml(`${title}: ${words}`)}"${k === 0 ? ' class="on"' : ''}>`,
  );
  return `<div class="play"><p aria-live="polite">${escapeXml(`${frames[0]!.title}: ${frames[0]!.words}`)}</p>${pictures.join('')}<div><button type="button">Play</button><input type="range" aria-label="Day of page ${page + 1}" min="0" max="${frames.length - 1}" value="0"></div></div>`;
}
