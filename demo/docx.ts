import { strToU8, zipSync } from 'fflate'

const escape = (s: string): string => s.replace(/&/g, '&amp;').replace(/</g, '&lt;').replace(/>/g, '&gt;')

/**
 * A small Word document (Office Open XML) from Markdown's headings and paragraphs, so that the
 * demo has a manuscript of that kind without a binary in the repository.
 */
export function writeDocx(markdown: string): Uint8Array {
  const paragraphs = markdown
    .split(/\n\s*\n/)
    .filter((p) => p.trim())
    .map((p) => {
      const heading = /^(#{1,3}) (.*)$/s.exec(p.trim())
      const style = heading ? `<w:pPr><w:pStyle w:val="Heading${heading[1]?.length ?? 1}"/></w:pPr>` : ''
      return `<w:p>${style}<w:r><w:t xml:space="preserve">${escape((heading?.[2] ?? p).trim())}</w:t></w:r></w:p>`
    })
  const styles = [1, 2, 3]
    .map(
      (n) => `<w:style w:type="paragraph" w:styleId="Heading${n}"><w:name w:val="heading ${n}"/></w:style>`,
    )
    .join('')
  const w = 'xmlns:w="http://schemas.openxmlformats.org/wordprocessingml/2006/main"'
  const office = 'application/vnd.openxmlformats-officedocument.wordprocessingml'
  const relation = 'http://schemas.openxmlformats.org/officeDocument/2006/relationships'
  const head = '<?xml version="1.0" encoding="UTF-8" standalone="yes"?>'
  const files: Record<string, string> = {
    '[Content_Types].xml': `${head}<Types xmlns="http://schemas.openxmlformats.org/package/2006/content-types"><Default Extension="rels" ContentType="application/vnd.openxmlformats-package.relationships+xml"/><Default Extension="xml" ContentType="application/xml"/><Override PartName="/word/document.xml" ContentType="${office}.document.main+xml"/><Override PartName="/word/styles.xml" ContentType="${office}.styles+xml"/></Types>`,
    '_rels/.rels': `${head}<Relationships xmlns="http://schemas.openxmlformats.org/package/2006/relationships"><Relationship Id="rId1" Type="${relation}/officeDocument" Target="word/document.xml"/></Relationships>`,
    'word/_rels/document.xml.rels': `${head}<Relationships xmlns="http://schemas.openxmlformats.org/package/2006/relationships"><Relationship Id="rId1" Type="${relation}/styles" Target="styles.xml"/></Relationships>`,
    'word/styles.xml': `${head}<w:styles ${w}>${styles}</w:styles>`,
    'word/document.xml': `${head}<w:document ${w}><w:body>${paragraphs.join('')}</w:body></w:document>`,
  }
  return zipSync(Object.fromEntries(Object.entries(files).map(([name, text]) => [name, strToU8(text)])), {
    mtime: Date.parse('2020-01-01T00:00:00Z'),
  })
}
