/** Text as it stands in a page, between tags and in attributes. */
export const escape = (text: string): string =>
  text.replace(/[&<>"]/g, (c) => ({ '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;' })[c] ?? c)

/**
 * A page in one HTML file that asks nothing of any host: pictures and clips are data in it, and a script runs only where
 * it `mayRun`. `body` is HTML.
 */
export function htmlPage(of: { title: string; style: string; body: string; mayRun?: boolean }): string {
  const { title, style, body, mayRun = false } = of
  const policy = `default-src 'none'; img-src data:; media-src data:; style-src 'unsafe-inline'${mayRun ? "; script-src 'unsafe-inline'" : ''}`
  return `<!doctype html>
<html lang="en">
<head>
<meta charset="utf-8">
<meta name="viewport" content="width=device-width, initial-scale=1">
<meta http-equiv="Content-Security-Policy" content="${policy}">
<title>${escape(title)}</title>
<style>${style}</style>
</head>
<body>
${body}
</body>
</html>
`
}
