const ESCAPES: Record<string, string> = {
  '&': '&amp;',
  '<': '&lt;',
  '>': '&gt;',
  '"': '&quot;',
  "'": '&#39;',
}

/** Text made safe for HTML and XML. */
export function escape(text: string): string {
  return text.replace(/[&<>"']/g, (c) => ESCAPES[c] ?? c)
}

/** How a page looks; a network's own are in networks/looks.ts. */
export interface PageLook {
  accent: string
  font: string
  posts: 'stream' | 'plates' | 'letters'
  ground: string
}

const PLAIN: PageLook = {
  accent: '#5c6862',
  font: 'system-ui, sans-serif',
  posts: 'stream',
  ground: '#fbfaf7',
}
const POSTS: Record<PageLook['posts'], string> = {
  stream: 'article{border:1px solid #ddd;border-radius:6px;padding:1rem;margin:1rem 0;background:#fff}',
  plates:
    '.posts{display:grid;grid-template-columns:repeat(auto-fill,minmax(15rem,1fr));gap:1rem}article{border-radius:10px;overflow:hidden;background:#fff;box-shadow:0 1px 4px #0002;padding:0 .8rem .8rem}article :is(img,video){margin:0 -.8rem;width:calc(100% + 1.6rem);max-width:none!important;border-radius:0!important}main{max-width:56rem!important}',
  letters: 'article{border-top:3px double #999;padding:1.5rem 0;margin:1.5rem 0;font-size:1.1rem}',
}

/** A page of the stand-in world. */
export function page(title: string, body: string, look: PageLook = PLAIN): string {
  const { accent, font, ground, posts } = look
  return `<!doctype html><html lang="en"><head><meta charset="utf-8"><meta name="viewport" content="width=device-width"><title>${escape(title)}</title>
<style>body{font:16px/1.5 ${font};margin:0;background:${ground};color:#222}main{max-width:40rem;margin:2rem auto;padding:0 1rem}
h1{font-size:1.4rem}h2{font-size:1.15rem}header{border-bottom:3px solid ${accent};padding:.8rem 1rem;font-weight:600}${POSTS[posts]}
article :is(img,video){max-width:100%;border-radius:4px}article p{white-space:pre-wrap;margin:.5rem 0;overflow-wrap:anywhere}.small{color:#555;font-size:.85rem}button{font:inherit;padding:.5rem 1rem;border:1px solid #333;border-radius:4px;background:#fff;cursor:pointer}
button.yes{background:${accent};color:#fff;border-color:${accent}}label{display:block;padding:.6rem;border:1px solid #ddd;border-radius:6px;margin:.4rem 0;background:#fff}table{border-collapse:collapse}td,th{text-align:left;padding:.2rem .8rem .2rem 0}</style></head>
<body>${body}</body></html>`
}
