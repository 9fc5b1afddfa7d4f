import { PAPER, type Scene, type SceneLink } from '@clembo/scene';

/** Presents the pages of a file from the file: by keys, by clicks, along its links; by its hash (SHA-256, base64). */
export const PRESENTER = String.raw`const pages=[...document.querySelectorAll('main>section')],body=document.body,count=document.querySelector('.where');let at=0,zoom=null;const trail=[];const show=()=>{pages.forEach((p,k)=>{p.classList.toggle('on',k===at);const s=p.querySelector('.sheet');s.style.transform=k===at&&zoom?'scale('+1/Math.max(zoom[2],zoom[3])+') translate('+-100*zoom[0]+'%,'+-100*zoom[1]+'%)':''});count.textContent=at+1+' / '+pages.length};const go=(k,z)=>{at=Math.max(0,Math.min(pages.length-1,k));zoom=z||null;show()};const hop=(a)=>{trail.push([at,zoom]);const z=a.dataset.zoom;go(+a.dataset.page,z?z.split(' ').map(Number):null)};const back=()=>{const was=trail.pop();if(was)go(was[0],was[1]);else if(zoom)go(at);else go(at-1)};const start=()=>{const m=/^#page-(\d+)/.exec(location.hash);body.classList.add('presenting');go(m?m[1]-1:at);document.documentElement.requestFullscreen&&document.documentElement.requestFullscreen().catch(()=>{})};const leave=()=>{body.classList.remove('presenting','blank','where-on');zoom=null;show();document.fullscreenElement&&document.exitFullscreen();pages[at].scrollIntoView()};document.querySelector('.present').addEventListener('click',start);document.addEventListener('click',(e)=>{const a=e.target.closest('a.hop');if(!body.classList.contains('presenting')){return}e.preventDefault();if(a)hop(a);else if(zoom)back();else if(!e.target.closest('button'))e.clientX>innerWidth/3?go(at+1):go(at-1)});document.addEventListener('keydown',(e)=>{if(!body.classList.contains('presenting')){if(e.key==='p')start();return}const k=e.key;if(k==='ArrowRight'||k==='PageDown'||k===' ')go(at+1);else if(k==='ArrowLeft'||k==='PageUp')go(at-1);else if(k==='Backspace')back();else if(k==='Home')go(0);else if(k==='End')go(pages.length-1);else if(k==='b')body.classList.toggle('blank');else if(k==='g')body.classList.toggle('where-on');else if(k==='Escape'){zoom?go(at):leave()}else return;e.preventDefault()});document.addEventListener('fullscreenchange',()=>{if(!document.fullscreenElement&&body.classList.contains('presenting')&&!zoom)leave()});show();`;
export const PRESENTER_HASH = 'MLvo0TloRz+BhIH+79mhsB2ic2usUNzvzzaFpfXneaQ=';

/** What stands beside the pages of a file that presents itself. */
export const PRESENT_BUTTON =
  '<button type="button" class="present" title="p">Present</button><span class="where" aria-hidden="true"></span>';

export const PRESENT_STYLE = [
  '.sheet{position:relative}.hop{position:absolute;border-radius:3px}.hop:hover,.hop:focus-visible{outline:2px solid #E3A019}',
  '.present{position:fixed;right:20px;top:14px;z-index:2;font:inherit;padding:5px 14px;border:0;border-radius:6px;background:#0F6E6E;color:#FBFAF6;cursor:pointer}.where{display:none}',
  `.presenting{overflow:hidden;background:${PAPER}}.presenting nav,.presenting details,.presenting .present,.presenting section:not(.on){display:none}.presenting main{padding:0}`,
  '.presenting section{position:fixed;inset:0;margin:0;overflow:hidden;display:flex;align-items:center;justify-content:center}.presenting .sheet{width:min(100vw,calc(100vh*var(--r)));max-width:none!important;box-shadow:none;transform-origin:0 0;transition:transform .35s}',
  '.presenting.blank section{visibility:hidden}.presenting.where-on .where{display:block;position:fixed;right:18px;bottom:12px;z-index:3;color:#5B6770}@media(prefers-reduced-motion:reduce){.presenting .sheet{transition:none}}@media print{.present,.where{display:none!important}}',
].join('');

const share = (v: number): number => Math.round(v * 1e5) / 1e5;
const percent = (v: number): string => `${Math.round(v * 1e4) / 100}%`;

/** Links of a page, laid over it. */
export function hopsHtml(scene: Scene, scenes: readonly Scene[]): string {
  return (scene.links ?? [])
    .map((l: SceneLink) => {
      const target = scenes[l.page]!;
      const zoom = l.to
        ? ` data-zoom="${share(l.to.x / target.width)} ${share(l.to.y / target.height)} ${share(l.to.width / target.width)} ${share(l.to.height / target.height)}"`
        : '';
      const place = `left:${percent(l.x / scene.width)};top:${percent(l.y / scene.height)};width:${percent(l.width / scene.width)};height:${percent(l.height / scene.height)}`;
      return `<a class="hop" href="#page-${l.page + 1}" data-page="${l.page}"${zoom} style="${place}" aria-label="To page ${l.page + 1}"></a>`;
    })
    .join('');
}
