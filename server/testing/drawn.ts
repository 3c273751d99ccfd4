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

/**
 * A value that a schema describes, but for parts that are drawn hostile or of another kind. `known` are words that stand for
 * something there: ids, addresses.
 */
export function drawn(schema: Schema, random: Random, known: readonly string[]): unknown {
  const pick = <T>(of: readonly T[]): T => of[Math.floor(random() * of.length)] as T
  if (random() < 0.04) return pick(WRONG)
  if (schema.const !== undefined) return schema.const
  if (schema.enum) return random() < 0.9 ? pick(schema.enum) : pick(HOSTILE)
  const choices = schema.anyOf ?? schema.oneOf
  if (choices) return drawn(pick(choices), random, known)
  if (schema.allOf)
    return Object.assign({}, ...schema.allOf.map((s) => drawn(s, random, known) as object)) as object
  switch ([schema.type].flat()[0]) {
    case 'object': {
      const { properties = {}, required = [], additionalProperties: more } = schema
      const entries = Object.entries(properties)
        .filter(([name]) => (required.includes(name) ? random() < 0.98 : random() < 0.6))
        .map(([name, part]) => [name, drawn(part, random, known)] as const)
      if (typeof more === 'object') entries.push([pick([...known, ...HOSTILE]), drawn(more, random, known)])
      return Object.fromEntries(entries)
    }
    case 'array':
      return Array.from({ length: Math.floor(random() * 4) }, () => drawn(schema.items ?? {}, random, known))
    case 'integer':
    case 'number':
      return random() < 0.5
        ? pick(NUMBERS)
        : (schema.minimum ?? 0) +
            Math.floor(random() * Math.min(400, (schema.maximum ?? 400) - (schema.minimum ?? 0)))
    case 'boolean':
      return random() < 0.5
    case 'null':
      return null
    case 'string':
      if (schema.format === 'date-time' && random() < 0.8)
        return new Date(Math.floor(random() * 4e12)).toISOString()
      return random() < 0.6 ? pick(known) : pick(HOSTILE)
    default:
      return pick([...WRONG, ...HOSTILE])
  }
}
