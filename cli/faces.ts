import { readdir, readFile } from 'node:fs/promises'
import { dirname, join } from 'node:path'
import { fileURLToPath } from 'node:url'
import decompress from 'woff2-encoder/decompress'
import { FontFile, inOrder } from '../core/cards'
import type { FaceName } from '../core/model'

/** Where the files of each typeface lie that comes with Dripline. */
const FILES: Readonly<Record<FaceName, { font: string; files: RegExp }>> = {
  Literata: { font: '@fontsource-variable/literata', files: /^literata-(.+)-opsz-normal\.woff2$/ },
  'Schibsted Grotesk': {
    font: '@fontsource-variable/schibsted-grotesk',
    files: /^schibsted-grotesk-(.+)-wght-normal\.woff2$/,
  },
  'Spline Sans Mono': {
    font: '@fontsource/spline-sans-mono',
    files: /^spline-sans-mono-(.+)-500-normal\.woff2$/,
  },
}

/** Opens the typefaces that come with Dripline. */
export async function openFaces(): Promise<Record<FaceName, FontFile[]>> {
  const opened = Object.entries(FILES).map(async ([name, { font, files }]) => {
    const folder = join(dirname(fileURLToPath(import.meta.resolve(`${font}/package.json`))), 'files')
    const found = inOrder((await readdir(folder)).filter((f) => files.test(f)))
    return [
      name,
      await Promise.all(
        found.map(async (f) => FontFile.open(await decompress(await readFile(join(folder, f))))),
      ),
    ]
  })
  return Object.fromEntries(await Promise.all(opened)) as Record<FaceName, FontFile[]>
}
