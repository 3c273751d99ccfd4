import { z } from 'zod'
import type { Chapter } from '../model'

/** Seconds of a time such as `1:02:03`, `4:05`, `75` or `PT4M`, or null. */
export function seconds(time: string | number | undefined | null): number | null {
  if (time === undefined || time === null) return null
  const text = String(time).trim()
  const iso = /^P(?:T(?=\d)(?:(\d+)H)?(?:(\d+)M)?(?:(\d+(?:\.\d+)?)S)?)$/i.exec(text)
  if (iso) return Number(iso[1] ?? 0) * 3600 + Number(iso[2] ?? 0) * 60 + Number(iso[3] ?? 0)
  if (!/^\d+(?::[0-5]?\d){0,2}(?:[.,]\d+)?$/.test(text)) return null
  return text
    .replace(',', '.')
    .split(':')
    .reduce((sum, part) => sum * 60 + Number(part), 0)
}

/**
 * The chapters that a description lists: at least two lines that begin or end with a time, the
 * times rising, the first within ten seconds of the beginning. `0:00 The box`, `The box – 4:10`.
 */
export function chaptersIn(text: string): Chapter[] {
  const found: Chapter[] = []
  for (const line of text.split(/\r?\n|<br\s*\/?>|<\/p>|<\/li>/i)) {
    const bare = line.replace(/<[^>]*>/g, '').trim()
    const match =
      /^[([•*–-]*\s*((?:\d+:)?[0-5]?\d:[0-5]\d)[)\]]?\s*[-–—:|.]*\s+(.{1,120})$/.exec(bare) ??
      /^(.{1,120}?)\s*[-–—:|([]*\s*((?:\d+:)?[0-5]?\d:[0-5]\d)[)\]]?$/.exec(bare)
    if (!match) continue
    const [first = '', second = ''] = [match[1], match[2]]
    const time = seconds(first) !== null && first.includes(':') ? first : second
    const title = (time === first ? second : first).trim()
    const at = seconds(time)
    if (at !== null && title) found.push({ at, title })
  }
  const rising = found.every((c, i) => i === 0 || c.at > (found[i - 1]?.at ?? 0))
  return found.length >= 2 && rising && (found[0]?.at ?? 99) <= 10 ? found : []
}

const ChapterFile = z.object({
  chapters: z.array(
    z.object({ startTime: z.number(), title: z.string().optional(), toc: z.boolean().optional() }),
  ),
})

/** The chapters of a JSON chapters file, the format that the podcast namespace points at; none where it is another. */
export function parseChapters(text: string): Chapter[] {
  try {
    return ChapterFile.parse(JSON.parse(text))
      .chapters.filter((c) => c.title && c.toc !== false && c.startTime >= 0)
      .map((c) => ({ at: c.startTime, title: c.title ?? '' }))
      .sort((a, b) => a.at - b.at)
  } catch {
    return []
  }
}
