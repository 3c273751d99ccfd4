/**
 * The text of a downloaded document. The encoding is taken from a byte-order mark, else from the
 * XML declaration or the HTML meta element, else from the HTTP header, else UTF-8; where UTF-8
 * does not fit the bytes, Windows-1252 is read instead, as browsers do, and where a Western
 * encoding is named but the bytes are UTF-8, UTF-8.
 */
export function decodeText(bytes: Uint8Array, contentType = ''): string {
  const head = new TextDecoder('latin1').decode(bytes.subarray(0, 1024))
  const named =
    byMark(bytes) ??
    /^\s*<\?xml[^>]*encoding=["']([\w-]+)["']/i.exec(head)?.[1] ??
    /<meta[^>]+charset=["']?([\w-]+)/i.exec(head)?.[1] ??
    /charset=["']?([\w-]+)/i.exec(contentType)?.[1] ??
    'utf-8'
  // A page that calls itself Latin-1 but whose bytes are whole UTF-8 is UTF-8: chance does not
  // make such sequences.
  const utf8First = /^(?:iso-8859|windows-125|latin|us-ascii)/i.test(named)
  for (const label of utf8First ? ['utf-8', named] : [named, 'utf-8']) {
    try {
      return new TextDecoder(label, { fatal: true }).decode(bytes)
    } catch {
      // an unknown label, or bytes that are not of that encoding: try the next
    }
  }
  return new TextDecoder('windows-1252').decode(bytes)
}

function byMark(bytes: Uint8Array): string | null {
  if (bytes[0] === 0xef && bytes[1] === 0xbb && bytes[2] === 0xbf) return 'utf-8'
  if (bytes[0] === 0xff && bytes[1] === 0xfe) return 'utf-16le'
  if (bytes[0] === 0xfe && bytes[1] === 0xff) return 'utf-16be'
  return null
}
