import { when, type Rule } from '../rule'

/** What calls upon a reader to take something up. */
const CALLS =
  /\b(?:book (?:online|now|a|your|by|at|in)|register|sign up|enrol|reserve (?:a|your)|order (?:online|now|yours)|buy (?:online|now|tickets?)|download (?:it|our|the|your)|subscribe|get in touch|give us a (?:call|ring)|call us|email us|ask (?:\p{L}+ )?at the (?:till|desk|counter)|drop us a line|free (?:trial|consultation|quote|download)|places? (?:are )?left|early bird)\b/giu
/** Turns of phrase that only sell. */
const SELLS =
  /\b(?:at your fingertips|(?:AI|machine)[- ]powered|seamless(?:ly)?|switch to \p{Lu}\p{L}+|all-in-one|one-stop|cutting[- ]edge|game[- ]chang\w+|industry[- ]leading|world[- ]class|award[- ]winning|best[- ]in[- ]class|state[- ]of[- ]the[- ]art|integrations|our (?:platform|solutions?|software|product|app) (?:helps?|lets?|makes?|gives?|offers?)|take your \p{L}+ to the next level)\b/gu
const PRICE = /[€£$] ?\d|\b\d+ ?(?:€|£|euros?|pounds?|dollars?|crowns?)\b|\bfree\b/i

/** Whether it offers something for sale or to come to: that is an advertisement, and ends with its offer. */
export const offer: Rule = {
  code: 'offer',
  english: true,
  blocks: false,
  finds: ({ prose }) => {
    const calls = prose.match(CALLS) ?? []
    const sells = prose.match(SELLS) ?? []
    const [words = ''] = [...calls, ...sells]
    const is = calls.length > 1 || (calls.length === 1 && PRICE.test(prose)) || sells.length > 1
    return when(is, () => ({
      severity: 'flag',
      message: `“${words}”: it reads as an offer. Take it out, or accept it where that is meant.`,
      words,
    }))
  },
}
