import type { PieceContent } from '../model'
import type { NetworkProfile } from '../networks'

/** A video's chapters as lines that a player understands, or null where they are too few or too near. */
export function chapterLines(
  video: PieceContent['video'],
  { least, gap }: NonNullable<NetworkProfile['chapters']>,
): string | null {
  const chapters = video?.chapters ?? []
  const apart = chapters.every((c, i) => i === 0 || c.at - (chapters[i - 1]?.at ?? 0) >= gap)
  if (chapters.length < least || chapters[0]?.at !== 0 || !apart) return null
  return chapters.map((c) => `${clock(c.at)} ${c.title}`).join('\n')
}

function clock(seconds: number): string {
  const whole = Math.floor(seconds)
  const minutes = String(Math.floor(whole / 60) % 60)
  const rest = String(whole % 60).padStart(2, '0')
  const hours = Math.floor(whole / 3600)
  return hours ? `${hours}:${minutes.padStart(2, '0')}:${rest}` : `${minutes}:${rest}`
}
