import type * as Pdf from '@cantoo/pdf-lib'
import type { Drawing, Stroke } from './drawing'

/** Points of a page to a pixel of a drawing: 1080 pixels are seven and a half inches. */
const POINTS = 0.5

/**
 * Drawings as the pages of one PDF, outlines as outlines, so that they are sharp at any size. The same drawings and title give
 * the same bytes. The letters are shapes and no text: who cannot see them needs to be told beside the file.
 * `pictures` are PNG files by their hashes; what it lacks is left out.
 */
export async function toPdf(
  pages: readonly Pick<Drawing, 'width' | 'height' | 'strokes'>[],
  title: string,
  pictures: ReadonlyMap<string, Uint8Array> = new Map(),
): Promise<Uint8Array<ArrayBuffer>> {
  const pdf = await import('@cantoo/pdf-lib')
  // Without the moment and the name of what made it, which would differ each time.
  const document = await pdf.PDFDocument.create({ updateMetadata: false })
  if (title !== '') document.setTitle(title, { showInWindowTitleBar: true })
  for (const { width, height, strokes } of pages) {
    const page = document.addPage([width * POINTS, height * POINTS])
    const names = new Map<string, Pdf.PDFName>()
    for (const hash of new Set(strokes.flatMap((s) => (s.kind === 'picture' ? s.hash : [])))) {
      const bytes = pictures.get(hash)
      if (bytes) names.set(hash, page.node.newXObject('Picture', (await document.embedPng(bytes)).ref))
    }
    page.pushOperators(
      pdf.pushGraphicsState(),
      // Pixels go down from the top of the page, points go up from its foot.
      pdf.concatTransformationMatrix(POINTS, 0, 0, -POINTS, 0, height * POINTS),
      ...strokes.flatMap((stroke) => operatorsOf(stroke, pdf, names)),
      pdf.popGraphicsState(),
    )
  }
  return new Uint8Array(await document.save())
}

/** What paints a stroke on a page whose measures are pixels from its top. */
function operatorsOf(
  stroke: Stroke,
  pdf: typeof Pdf,
  names: ReadonlyMap<string, Pdf.PDFName>,
): Pdf.PDFOperator[] {
  if (stroke.kind === 'picture') {
    const name = names.get(stroke.hash)
    if (!name) return []
    const { x, y, width, height } = stroke
    return [
      pdf.pushGraphicsState(),
      // A picture fills a square of one by one, from its foot upwards.
      pdf.concatTransformationMatrix(width, 0, 0, -height, x, y + height),
      pdf.drawObject(name),
      pdf.popGraphicsState(),
    ]
  }
  const [red = 0, green = 0, blue = 0] = [1, 3, 5].map(
    (at) => parseInt(stroke.fill.slice(at, at + 2), 16) / 255,
  )
  const painted =
    stroke.kind === 'field'
      ? [
          pdf.setFillingRgbColor(red, green, blue),
          pdf.rectangle(stroke.x, stroke.y, stroke.width, stroke.height),
          pdf.fill(),
        ]
      : [
          pdf.concatTransformationMatrix(stroke.scale, 0, 0, stroke.scale, stroke.x, stroke.y),
          // It takes paths that go down the page and turns them over, which brings ours upright.
          ...pdf.drawSvgPath(stroke.outline, {
            x: 0,
            y: 0,
            scale: 1,
            color: pdf.rgb(red, green, blue),
            borderColor: undefined,
            borderWidth: 0,
          }),
        ]
  return [pdf.pushGraphicsState(), ...painted, pdf.popGraphicsState()]
}
