/** Asks whether the page that is shared has changed, and says so or reads it anew; by its hash (SHA-256, base64). */
export const WATCHER = String.raw`const own=location.pathname.replace(/\/$/,'')+'/mark';let first=null;const look=async()=>{if(document.hidden)return;try{const a=await fetch(own,{cache:'no-store'});if(!a.ok){if(a.status===404||a.status===401)location.reload();return}const mark=await a.text();if(first===null)first=mark;else if(mark!==first){if(document.body.classList.contains('wall'))location.reload();else document.querySelector('.renewed').hidden=false}}catch{}};document.querySelector('.renewed').addEventListener('click',()=>location.reload());look();setInterval(look,document.body.classList.contains('wall')?5000:15000);document.addEventListener('visibilitychange',look);`;
export const WATCHER_HASH = 'tXDHSd+S4mI5xB4PxVMQP0fceeVgxetcgOw64QHmIIg=';

/** What stands on a page that follows its plans, until they change. */
export const RENEWED =
  '<button type="button" class="renewed" hidden>This has changed meanwhile. See it as it is now</button>';

export const WATCH_STYLE =
  '.renewed{position:fixed;left:50%;bottom:18px;transform:translateX(-50%);z-index:4;font:inherit;padding:8px 18px;border:0;border-radius:6px;background:#1E2A32;color:#FBFAF6;cursor:pointer}.renewed[hidden]{display:none}@media print{.renewed{display:none}}';
