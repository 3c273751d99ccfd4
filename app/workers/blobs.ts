/** A picture ready to be handed over. */
export interface MadePicture {
  blob: Blob
  hash: string
  type: string
  width: number
  height: number
}

/** A picture as it was looked at: its print too, absent where it is too flat to have one, and whether it moves. */
export interface SeenPicture extends MadePicture {
  print?: string
  moves?: boolean
}

/** SHA-256 of a blob's bytes, in hexadecimal. */
export async function hashOf(blob: Blob): Promise<string> {
  const digest = await crypto.subtle.digest('SHA-256', await blob.arrayBuffer())
  return [...new Uint8Array(digest)].map((b) => b.toString(16).padStart(2, '0')).join('')
}
