import { upperFirst } from '../language'
import type { PieceContent } from '../model'

/** Words that tell nothing: whoever hears an alternative text knows that it is of a picture. */
const PICTURE_OF =
  /^(?:an? |the )?(?:[a-z]+ )?(?:image|picture|photo(?:graph)?|illustration|drawing|screenshot|figure)(?: (?:of|showing|that shows|depicting)|:)\s+/i
/** What a camera or a web page calls a file. */
const FILE_NAME =
  /^[\w%()-]+\.(?:png|jpe?g|webp|gif|avif|svg)$|^(?:img|dsc[nf]?|image|pic|screenshot)[-_ ]?\d+$/i

/** What a picture of a piece stands with, where nothing is said of it: the heading of the part in which it stands, else the piece's title. */
export function standsWith(
  { block }: { block: number },
  { title, text, blocks }: Pick<PieceContent, 'title' | 'text' | 'blocks'>,
): string {
  const heading = blocks.findLast((b, i) => i <= block && b.kind === 'heading' && b.furniture === null)
  return heading ? text.slice(heading.start, heading.end).replace(/\s+/g, ' ').trim() : title
}

/**
 * An alternative text proposed for a picture: what its page says of it, its caption, or else what it stands with; without
 * "image of", and never a file's name.
 */
export function proposedAlt(image: { alt: string; caption: string }, otherwise: string): string {
  const told = [image.alt, image.caption]
    .map((t) => t.replace(/\s+/g, ' ').trim())
    .filter((t) => !FILE_NAME.test(t))
  const said = told.find((t) => t !== '') ?? otherwise
  const bare = said.replace(PICTURE_OF, '')
  return bare === said ? said : upperFirst(bare)
}
