import type { Slot } from '../model'
import { clockMinutes } from './zone'

/** A slot as the minutes of its day that it spans; an exact time spans one. */
export function spanOf(slot: Slot): { weekday: number; from: number; to: number } {
  const [from, to] = 'at' in slot ? [slot.at, slot.at] : [slot.from, slot.to]
  return { weekday: slot.weekday, from: clockMinutes(from), to: clockMinutes(to) }
}

/** When of its day a slot is: "09:30", or "09:30 to 11:00". */
export function slotWords(slot: Slot): string {
  return 'at' in slot ? slot.at : `${slot.from} to ${slot.to}`
}
