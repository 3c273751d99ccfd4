import { MONTHS, toWall, WEEKDAYS, weekdayOf } from '../../core/planning'

/** "24 Nov" of a local date. */
export function shortDay(date: string): string {
  return `${Number(date.slice(8))} ${MONTHS[Number(date.slice(5, 7)) - 1]?.slice(0, 3) ?? ''}`
}

/** "24 November" of a local date. */
export function longDay(date: string): string {
  return `${Number(date.slice(8))} ${MONTHS[Number(date.slice(5, 7)) - 1] ?? ''}`
}

/** "November 2026" of a local date. */
export function monthName(date: string): string {
  return `${MONTHS[Number(date.slice(5, 7)) - 1] ?? ''} ${date.slice(0, 4)}`
}

export function weekdayName(weekday: number): string {
  return WEEKDAYS[weekday - 1]?.slice(0, 3) ?? ''
}

/** "Tue 24 Nov 10:42" in a zone. */
export function moment(at: string | number, zone: string): string {
  const wall = toWall(typeof at === 'number' ? at : Date.parse(at), zone)
  return `${weekdayName(wall.weekday)} ${shortDay(wall.date)} ${wall.time}`
}

/** A sentence with its dates as people write them: "2026-11-28" becomes "Sat 28 Nov". */
export function withDays(sentence: string): string {
  return sentence.replace(
    /\b\d{4}-\d\d-\d\d\b/g,
    (date) => `${weekdayName(weekdayOf(date))} ${shortDay(date)}`,
  )
}

/** "3 hours ago", "in 2 days": how far a moment lies from now. */
export function distance(at: string, now: number): string {
  const minutes = Math.round((Date.parse(at) - now) / 60_000)
  const size = Math.abs(minutes)
  const words =
    size < 1
      ? 'now'
      : size < 60
        ? count(size, 'minute')
        : size < 48 * 60
          ? count(Math.round(size / 60), 'hour')
          : count(Math.round(size / 1440), 'day')
  return size < 1 ? words : minutes < 0 ? `${words} ago` : `in ${words}`
}

/** "1 post", "3 posts". */
export function count(number: number, noun: string, plural = `${noun}s`): string {
  return `${number.toLocaleString('en-GB')} ${number === 1 ? noun : plural}`
}

/** The city of a zone: "Europe/Lisbon" is Lisbon. */
export function zoneCity(zone: string): string {
  return (zone.split('/').pop() ?? zone).replace(/_/g, ' ')
}

/** "4:05", "1:02:03": a time within a video, from seconds. */
export function clip(seconds: number): string {
  const whole = Math.max(0, Math.floor(seconds))
  const two = (n: number): string => String(n).padStart(2, '0')
  const [h, m, s] = [Math.floor(whole / 3600), Math.floor(whole / 60) % 60, whole % 60]
  return h ? `${h}:${two(m)}:${two(s)}` : `${m}:${two(s)}`
}
