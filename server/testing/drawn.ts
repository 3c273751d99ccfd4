import type { Random } from '../../core/planning'

/** As much of JSON Schema as the description of the server uses. */
export interface Schema {
  type?: string | string[]
  const?: unknown
  enum?: readonly unknown[]
  properties?: Readonly<Record<string, Schema>>
  required?: readonly string[]
  additionalProperties?: boolean | Schema
  items?: Schema
  anyOf?: readonly Schema[]
  oneOf?: readonly Schema[]
  allOf?: readonly Schema[]
  format?: string
  minimum?: number
  maximum?: number
}

/** Words that no table, header, address or page should take amiss. */
const HOSTILE = [
  '\u0000',
  'a\u0000b',
  '9'.repeat(25),
  '-1',
  '☃',
  '\ud83d',
  '\u202e',
  '../..',
  "'; drop table deliveries; --",
  '<script>',
  '%00',
  '%zz',
  '__proto__',
  'x'.repeat(5000),
  'http://localhost:1/',
  'file:///etc/passwd',
  'http://[::1]:0/',
  'ht!tp://',
  '',
]
const NUMBERS = [0, -1, 0.5, 1e21, 2 ** 31, 2 ** 53, -(2 ** 63), 1, 7]
const WRONG = [null, [], {}, true, 1, '', [[]], { a: 1 }, 'x', -0.1]

/** By what values are drawn. */
export interface Draw {
  random: Random
  /** Words that stand for something there: ids, addresses. */
  known: readonly string[]
  /** For fields of these names, words that come as far as anything can. */
  named: Readonly<Record<string, readonly string[]>>
  /** How much of it is not as the schema says: from 0, where only what it allows is drawn, to 1. */
  wild: number
}

/** A value that a schema describes, but for what is drawn wild. */
export function drawn(schema: Schema, draw: Draw, name = ''): unknown {
  const { random, known, wild } = draw
  const pick = <T>(of: readonly T[]): T => of[Math.floor(random() * of.length)] as T
  if (random() < wild / 8) return pick(WRONG)
  if (schema.const !== undefined) return schema.const
  if (schema.enum) return random() < wild / 3 ? pick(HOSTILE) : pick(schema.enum)
  const choices = schema.anyOf ?? schema.oneOf
  if (choices) return drawn(pick(choices), draw, name)
  if (schema.allOf) return Object.assign({}, ...schema.allOf.map((s) => drawn(s, draw) as object)) as object
  switch ([schema.type].flat()[0]) {
    case 'object': {
      const { properties = {}, required = [], additionalProperties: more } = schema
      const entries = Object.entries(properties)
        .filter(([name]) => random() < (required.includes(name) ? 1 - wild / 8 : 0.6))
        .map(([name, part]) => [name, drawn(part, draw, name)] as const)
      if (typeof more === 'object') entries.push([pick([...known, ...HOSTILE]), drawn(more, draw)])
      return Object.fromEntries(entries)
    }
    case 'array':
      return Array.from({ length: Math.floor(random() * 4) }, () => drawn(schema.items ?? {}, draw))
    case 'integer':
    case 'number': {
      const least = schema.minimum ?? 0
      const far = NUMBERS.filter(
        (n) => n >= least && n <= (schema.maximum ?? 2 ** 53 - 1) && Number.isInteger(n),
      )
      if (random() < wild / 2) return pick(NUMBERS)
      return random() < 0.3
        ? pick([least, ...far])
        : least + Math.floor(random() * Math.min(400, (schema.maximum ?? 1e9) - least))
    }
    case 'boolean':
      return random() < 0.5
    case 'null':
      return null
    case 'string':
      if (schema.format === 'date-time' && random() > wild / 3)
        return new Date(Math.floor(random() * 4e12)).toISOString()
      if (draw.named[name] && random() > wild / 2) return pick(draw.named[name])
      return random() < 0.3 + wild / 2 ? pick(HOSTILE) : pick(known)
    default:
      return pick([...WRONG, ...HOSTILE])
  }
}
