import type { BlockDraft } from './piece'

/** A block that begins a turn: who is named, and the words without the name. */
interface Turn {
  label: string
  rest: string
}

const TIME = String.raw`(?:[\[(]?\d{1,2}:\d{2}(?::\d{2})?(?:\.\d+)?[\])]?\s*(?:[-–—|]\s*)?)?`
const NAME = String.raw`(?:(?:Dr|Mr|Mrs|Ms|Prof|Sir|Dame)\.?\s+)?\p{Lu}[\p{L}.'’-]*(?:\s+(?:(?:de|van|von|der|la|du)\s+)?\p{Lu}[\p{L}.'’-]*){0,3}`
const TURN = new RegExp(
  String.raw`^${TIME}(${NAME})\s*(?:\((?:[^)]{1,30})\)|\[?\d{1,2}:\d{2}(?::\d{2})?\]?)?\s*:\s+(\S[\s\S]*)$`,
  'u',
)
const LETTER = /^(Q|A|Question|Answer)\s*[.:]\s+(\S[\s\S]*)$/
const TIMED = new RegExp(String.raw`^[\[(]\d{1,2}:\d{2}(?::\d{2})?(?:\.\d+)?[\])]\s*(?:[-–—|:]\s*)?`)

/** Words before a colon that name no speaker. */
const NO_NAME =
  /^(?:myth|fact|note|tip|hint|pros?|cons?|step|example|warning|caution|update|edit|verdict|ingredients|serves|makes|time|price|cost|day|week|month|year|result|problem|solution|reason|lesson|rule|before|after|why|how|what|when|where|who|yes|no|bonus|summary|answer|question|definition|source|photo|image|figure|table|part|chapter|section|phase|stage|option|level|method|mistake|monday|tuesday|wednesday|thursday|friday|saturday|sunday|january|february|march|april|may|june|july|august|september|october|november|december|also|and|but|so|then|first|second|third|finally|next|remember|important|disclaimer|good|bad|better|best|worst|old|new|left|right|here|there|this|that|it|they|we|you|i|the|an?|in|on|at|for|from|to|with|of)\b/i

function turnOf(draft: BlockDraft): Turn | null {
  if (draft.furniture !== null || draft.kind === 'code' || draft.kind === 'row') return null
  const letter = LETTER.exec(draft.text)
  if (letter) return { label: letter[1] ?? '', rest: letter[2] ?? '' }
  const match = TURN.exec(draft.text)
  if (match && !NO_NAME.test(match[1] ?? '')) return { label: match[1] ?? '', rest: match[2] ?? '' }
  // A name in bold before a turn, without a colon.
  const bold = draft.bold?.replace(/[:.\s]+$/, '') ?? ''
  const rest = draft.text.slice((draft.bold ?? '').length).replace(/^[\s:.–—-]+/, '')
  const named = new RegExp(`^${NAME}$`, 'u').test(bold) && !NO_NAME.test(bold)
  return named && rest && draft.bold !== draft.text ? { label: bold, rest } : null
}

const isLetter = (label: string): boolean => /^(?:Q|A|Question|Answer)$/.test(label)

/**
 * The turns of a conversation: "Name: …" before each, "[00:12:34] NAME: …", names in bold, "Q."/"A.",
 * names as the terms of a list of definitions. Two speakers at least, one of them twice, and no fewer
 * than four turns; fewer are a colon in running text.
 */
function turnsOf(drafts: readonly BlockDraft[]): (Turn | null)[] | null {
  const turns = drafts.map((draft, i) => {
    const turn = turnOf(draft)
    if (turn) return turn
    // A term that is a name, and what it says below.
    const before = drafts[i - 1]
    const term = before?.kind === 'heading' && before.level === 5 ? before.text.replace(/:$/, '') : ''
    return term && new RegExp(`^${NAME}$`, 'u').test(term) && !NO_NAME.test(term)
      ? { label: term, rest: draft.text }
      : null
  })
  const counts = new Map<string, number>()
  for (const t of turns) if (t) counts.set(t.label, (counts.get(t.label) ?? 0) + 1)
  const several = [...counts].filter(([, n]) => n >= 2)
  const total = several.reduce((sum, [, n]) => sum + n, 0)
  if (counts.size < 2 || several.length < 1 || total < 3 || turns.filter(Boolean).length < 4) return null
  // A label that comes once among many is a speaker too where others alternate; alone it is a colon.
  return turns.map((t) => (t && ((counts.get(t.label) ?? 0) >= 2 || several.length >= 2) ? t : null))
}

/** A person's whole name and what the text says he or she is, as far as it says so. */
interface Person {
  name: string
  role: string | null
}

const WORD = String.raw`\p{Lu}(?:\p{Ll}[\p{L}]*|[’']\p{Lu}\p{Ll}+)(?:-\p{Lu}\p{Ll}+)*(?![’'])`
const NAMES = new RegExp(
  String.raw`(?:(?:Dr|Prof|Sir|Dame)\.? )?${WORD}(?: (?:(?:de|van|von|der|la|du) )?(?:${WORD}|\p{Lu}\.)){1,3}`,
  'gu',
)

/** Completes a label, "LORNA", "Tidewell", "LT", from where the text first gives the whole name. */
function personOf(label: string, running: string): Person {
  const words = label.split(/\s+/)
  const lower = label.toLowerCase().replace(/\./g, '')
  const initials = (run: string): string =>
    run
      .split(/[ -]/)
      .map((w) => w.charAt(0))
      .join('')
      .toLowerCase()
  let name: string | undefined
  for (const [run] of running.matchAll(NAMES)) {
    const parts = run.split(' ')
    // "And Joanne Veldkamp": a run of capitals may begin before the name does.
    const from = parts.findIndex((part) => part.toLowerCase() === lower)
    if (
      words.length > 1
        ? run.toLowerCase().endsWith(lower)
        : from >= 0 && (from + 1 < parts.length || from > 0)
    )
      name =
        words.length > 1
          ? run.slice(-lower.length)
          : from + 1 < parts.length
            ? parts.slice(from).join(' ')
            : run
    else if (/^\p{Lu}{2,4}$/u.test(label) && initials(run) === lower) name = run
    if (name) break
  }
  const bare = /^\p{Lu}{4,}$/u.test(label) ? label.charAt(0) + label.slice(1).toLowerCase() : label
  name ??= bare
  return { name, role: roleOf(name, running) }
}

/** What stands beside a name: "Lorna Tidewell, a bridge inspector", "… is a bridge inspector", "… as an attendant". */
function roleOf(name: string, running: string): string | null {
  const escaped = name.replace(/[.*+?^${}()|[\]\\]/g, '\\$&')
  const ROLE = String.raw`([a-z][^,.;:()!?]{3,60}?)`
  const END = String.raw`(?= for (?:\w+ )?(?:\w+-)?\w+ years|[,.;)]| who | and (?:has|is|was|the|then)\b)`
  const patterns = [
    `${escaped}(?:,? who)? (?:is|was|has been|works as) (?:an?|the|our) ${ROLE}${END}`,
    `${escaped}(?:,| \\()\\s*(?:who (?:is|was) )?(?:an?|the|our) ${ROLE}${END}`,
    `${escaped}, who [^.]{3,60} as (?:an?|the) ${ROLE}${END}`,
    `${escaped}, ((?:head|chief|senior|former|founder|director|author|editor|professor|chair|owner|co-founder) [^,.;:()!?]{3,50}?|(?:founder|director|author|editor))${END}`,
    `${escaped}[^.]{0,120}\\. (?:She|He|They) (?:is|was|are|has been|have been|works as) (?:an?|the) ${ROLE}${END}`,
    `(?:^|[.!?,] |\\b(?:the|our|an?|by|with|to) )([a-z][a-z -]{4,40}) ${escaped}\\b`,
  ]
  for (const pattern of patterns) {
    const role = new RegExp(pattern, 'u').exec(running)?.[1]?.trim() ?? ''
    if (role && role.split(/\s+/).length <= 9 && !NO_ROLE.test(role)) return role
  }
  return null
}

const NO_ROLE =
  /^(?:who|which|and|but|whose|that|thanks?|thank|welcome|hello|hi|here|you|he|she|it|they|on|at|in|of|said|says|when|where|for|to|with|by|from|i|we|bit|little|lot|kind|sort)\b|\b(?:I|me|my|we|you)\b/i

/** Whether two names may be the same person's. */
function samePerson(a: string, b: string | null): boolean {
  if (!b) return false
  const last = (n: string): string => n.toLowerCase().split(' ').at(-1) ?? ''
  return a.toLowerCase() === b.toLowerCase() || (last(a) === last(b) && a.charAt(0) === b.charAt(0))
}

/**
 * Says of every turn of an interview, podcast or dialogue who speaks. Labels and times are taken off the
 * words. What a guest says becomes a quotation with name and role; what the author asks stays the
 * brand's own word, and so do questions and answers that nobody is named for.
 */
export function markSpeakers(drafts: readonly BlockDraft[], author: string | null): BlockDraft[] {
  const turns = turnsOf(drafts)
  if (!turns) return drafts.map(withoutTime)
  // Where names are given: the author first, then the text around the turns, then the turns themselves.
  const around = drafts.filter((_, i) => !turns[i]).map((d) => d.text)
  const running = [author ?? '', ...around, ...turns.flatMap((t) => t?.rest ?? [])].join(' \n ')
  const people = new Map<string, Person>()
  for (const t of turns)
    if (t && !people.has(t.label) && !isLetter(t.label)) people.set(t.label, personOf(t.label, running))
  const guest = guestOf(drafts, turns)
  const last = turns.reduce((at, t, i) => (t ? i : at), -1)
  let speaking: Person | null = null
  const terms = new Set(
    turns.flatMap((t, i) =>
      t && drafts[i - 1]?.level === 5 && drafts[i - 1]?.text.replace(/:$/, '') === t.label ? [i - 1] : [],
    ),
  )
  return drafts.flatMap((draft, i): BlockDraft[] => {
    if (terms.has(i)) return []
    const turn = turns[i]
    if (draft.kind === 'heading' && !turn) {
      speaking = null
      return [draft]
    }
    if (turn) {
      const person = isLetter(turn.label)
        ? /^A/.test(turn.label)
          ? guest
          : null
        : (people.get(turn.label) ?? null)
      speaking = person && !samePerson(person.name, author) ? person : null
    } else if (i > last) speaking = null
    const text = turn ? turn.rest : draft.text
    const { bold: _, ...rest } = draft
    if (!speaking || draft.furniture) return [withoutTime({ ...rest, text })]
    const { name, role } = speaking
    return [withoutTime({ ...rest, kind: 'quotation', text, speaker: role ? `${name}, ${role}` : name })]
  })
}

function withoutTime(draft: BlockDraft): BlockDraft {
  const text = draft.text.replace(TIMED, '')
  return text && text !== draft.text ? { ...draft, text } : draft
}

/** Who answers where turns are only Q and A: the one name the opening gives, in a text that says it is a talk with somebody. */
function guestOf(drafts: readonly BlockDraft[], turns: readonly (Turn | null)[]): Person | null {
  const first = turns.findIndex(Boolean)
  const opening = drafts
    .slice(0, Math.max(0, first))
    .map((d) => d.text)
    .join(' ')
  const named =
    /\b(?:interview(?:ed)?|spoke|talk(?:ed|s)?|sat down|conversation|caught up|asked|met)\b(?: (?:to|with))? (?:[a-z ]{0,30})?((?:\p{Lu}[\p{L}'’-]+ )+\p{Lu}[\p{L}'’-]+)/u.exec(
      opening,
    )?.[1]
  return named ? { name: named, role: roleOf(named, opening) } : null
}
