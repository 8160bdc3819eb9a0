import { INSTALL, type Kind } from './words'

/**
 * The page that installs the authority: plain, for phones that trust nothing of this server yet. Its one script looks
 * for what this browser could not send while the workshop was open at this address (public/left-behind.js).
 */

const escape = (text: string) =>
  text.replace(/[&<>"']/g, c => `&#${c.charCodeAt(0)};`)

const STYLE = `
:root{color-scheme:light dark;--ink:#13201f;--soft:#4b5b59;--paper:#f6f4ee;--line:#cfcabd;--strong:#0f5b4f;--on:#fff}
@media(prefers-color-scheme:dark){:root{--ink:#eef2ee;--soft:#b2beba;--paper:#13201f;--line:#3a4a48;--strong:#7fd1bf;--on:#0d1716}}
*{box-sizing:border-box}body{margin:0;background:var(--paper);color:var(--ink);font:1.0625rem/1.5 system-ui,sans-serif}
main{max-width:40rem;margin:0 auto;padding:1.5rem 1.25rem 4rem}h1{font-size:1.6rem;line-height:1.2;margin:0 0 .5rem}
h2{font-size:1.15rem;margin:2rem 0 .5rem}p{margin:.5rem 0}ol{padding-left:1.4rem}li{margin:.35rem 0}.soft{color:var(--soft)}
.go{display:block;text-align:center;background:var(--strong);color:var(--on);padding:.9rem 1rem;border-radius:.6rem;font-weight:650;
text-decoration:none;margin:1rem 0}button.go{width:100%;border:0;font-size:inherit;cursor:pointer}
a{color:var(--strong)}code{font:600 1rem/1.7 ui-monospace,monospace;overflow-wrap:anywhere}
details{border-top:1px solid var(--line);padding:.6rem 0}details:last-of-type{border-bottom:1px solid var(--line)}
summary{font-weight:650;cursor:pointer;padding:.35rem 0}.print{border-left:4px solid var(--strong);padding:.2rem 0 .2rem .9rem;margin:1rem 0}
`

/** Which steps stand open: those of the phone that asks. */
export function kindOf(userAgent: string): Kind {
  if (/iPhone|iPad|iPod/.test(userAgent)) return 'iphone'
  if (/Android/.test(userAgent)) return 'android'
  if (/Windows/.test(userAgent)) return 'windows'
  if (/Macintosh/.test(userAgent)) return 'mac'
  return 'linux'
}

const steps = (list: readonly string[]) => `<ol>${list.map(s => `<li>${escape(s)}</li>`).join('')}</ol>`

/** Eight pairs a line: they are compared by eye. */
function fingerprint(whole: string): string {
  const pairs = whole.split(':')
  return Array.from({ length: Math.ceil(pairs.length / 8) }, (_, i) => pairs.slice(8 * i, 8 * i + 8).join(' ')).join('<br>')
}

/** Shown by its script, where there is something. @param to the workshop over https */
function leftBehind(to: string): string {
  const { title, count, how, button, said } = INSTALL.left
  const sentences = Object.entries(said).map(([id, s]) => `<p data-said="${id}" hidden>${escape(s)}</p>`).join('')
  return `<section id="left" data-to="${escape(to)}" hidden><h2>${escape(title)}</h2>`
    + `<p>${escape(count)} <b data-count></b></p><p>${escape(how)}</p>`
    + `<p><button type="button" class="go">${escape(button)}</button></p><div role="status">${sentences}</div></section>`
    + '<script type="module" src="/left-behind.js"></script>'
}

/** @param addresses over https @param print of the authority @param kind of device that asks */
export function installPage(addresses: readonly string[], print: string, kind: Kind): string {
  const { title, why, download, compare, then, without, remove, kinds } = INSTALL
  const [first, ...others] = addresses
  const sections = Object.entries(kinds).map(([id, k]) =>
    `<details${id === kind ? ' open' : ''}><summary>${escape(k.name)}</summary>${steps(k.steps)}`
    + `<p class="soft">${escape(remove)} ${escape(k.remove)}</p></details>`).join('')
  return `<!doctype html><html lang="en-GB"><head><meta charset="utf-8">`
    + `<meta name="viewport" content="width=device-width, initial-scale=1"><title>${escape(title)} · Nine Ripples</title>`
    + `<style>${STYLE}</style></head><body><main><h1>${escape(title)}</h1><p>${escape(why)}</p>${leftBehind(first ?? '')}`
    + `<h2>1. ${escape(download.title)}</h2><p><a class="go" href="/authority.crt">${escape(download.button)}</a></p>`
    + `<p>${escape(compare)}</p><p class="print"><code>${fingerprint(escape(print))}</code></p>`
    + `<h2>2. ${escape(download.install)}</h2>${sections}`
    + `<h2>3. ${escape(then.title)}</h2><p><a class="go" href="${escape(first ?? '')}">${escape(then.button)}</a></p>`
    + `<p class="soft">${escape(first ?? '')}${others.map(o => `<br>${escape(then.or)} ${escape(o)}`).join('')}</p>`
    + `<h2>${escape(without.title)}</h2><p>${escape(without.text)}</p>`
    + `<p><a class="go" href="/door">${escape(without.button)}</a></p></main></body></html>`
}
