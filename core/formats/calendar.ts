import ICAL from 'ical.js'
import type { CalendarEntry } from '../model'

/** How long an entry is shown, in minutes; a post itself takes no time. */
const SHOWN_MINUTES = 15

/**
 * Posts as an iCalendar file (RFC 5545), one event a post, in UTC; `now` is the stamp. An entry
 * keeps its id from one writing to the next, so that calendar programs move it rather than double it.
 */
export function writeCalendar(name: string, entries: readonly CalendarEntry[], now: string): string {
  const calendar = new ICAL.Component('vcalendar')
  calendar.updatePropertyWithValue('version', '2.0')
  calendar.updatePropertyWithValue('prodid', '-//Dripline//Horizon//EN')
  // A property outside the standard has no type by which it would be escaped.
  const title = plain(name)
    .replace(/\s+/g, ' ')
    .replace(/[\\;,]/g, '\\$&')
  calendar.updatePropertyWithValue('x-wr-calname', title)
  calendar.updatePropertyWithValue('refresh-interval', 'PT1H')
  calendar.getFirstProperty('refresh-interval')?.setParameter('value', 'duration')
  for (const entry of [...entries].sort((a, b) =>
    a.at < b.at ? -1 : a.at > b.at ? 1 : a.id < b.id ? -1 : 1,
  )) {
    const component = new ICAL.Component('vevent')
    component.updatePropertyWithValue('uid', `${entry.id}@dripline`)
    component.updatePropertyWithValue('dtstamp', utc(now))
    component.updatePropertyWithValue('dtstart', utc(entry.at))
    component.updatePropertyWithValue('duration', `PT${SHOWN_MINUTES}M`)
    component.updatePropertyWithValue('summary', plain(entry.title))
    component.updatePropertyWithValue('description', plain(entry.text))
    // An address is not escaped as words are, so that a line break in it would begin a line of its own.
    if (entry.url)
      component.updatePropertyWithValue('url', entry.url.replace(/[\s\p{Cc}]/gu, encodeURIComponent))
    component.updatePropertyWithValue('status', entry.certain ? 'CONFIRMED' : 'TENTATIVE')
    component.updatePropertyWithValue('transp', 'TRANSPARENT')
    calendar.addSubcomponent(component)
  }
  return `${calendar.toString().replaceAll('\r\n ', '').split('\r\n').map(folded).join('\r\n')}\r\n`
}

/** A line in pieces of at most 75 octets (RFC 5545, 3.1), parted between characters. */
function folded(line: string): string {
  const lines: string[] = []
  let current = ''
  let octets = 0
  for (const sign of line) {
    const size = new TextEncoder().encode(sign).length
    if (octets + size > 75) {
      lines.push(current)
      current = ' '
      octets = 1
    }
    current += sign
    octets += size
  }
  return [...lines, current].join('\r\n')
}

/** A text without the signs of control that no line may hold (RFC 5545, section 3.1); its lines end one way. */
function plain(text: string): string {
  return text.replace(/\r\n?/g, '\n').replace(/(?![\n\t])\p{Cc}/gu, '')
}

function utc(at: string): ICAL.Time {
  return ICAL.Time.fromJSDate(new Date(at), true)
}
