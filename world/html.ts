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

/** A plain page of the stand-in world. */
export function page(title: string, body: string, accent = '#5c6862'): string {
  return `<!doctype html><html lang="en"><head><meta charset="utf-8"><meta name="viewport" content="width=device-width"><title>${escape(title)}</title>
<style>body{font:16px/1.5 system-ui,sans-serif;margin:0;background:#fbfaf7;color:#222}main{max-width:40rem;margin:2rem auto;padding:0 1rem}
h1{font-size:1.4rem}header{border-bottom:3px solid ${accent};padding:.8rem 1rem;font-weight:600}article{border:1px solid #ddd;border-radius:6px;padding:1rem;margin:1rem 0;background:#fff}
article img{max-width:100%;border-radius:4px}article p{white-space:pre-wrap;margin:.5rem 0;overflow-wrap:anywhere}.small{color:#555;font-size:.85rem}button{font:inherit;padding:.5rem 1rem;border:1px solid #333;border-radius:4px;background:#fff;cursor:pointer}
button.yes{background:${accent};color:#fff;border-color:${accent}}label{display:block;padding:.6rem;border:1px solid #ddd;border-radius:6px;margin:.4rem 0;background:#fff}table{border-collapse:collapse}td,th{text-align:left;padding:.2rem .8rem .2rem 0}</style></head>
<body>${body}</body></html>`
}
