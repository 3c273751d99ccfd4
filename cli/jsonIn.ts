import { readFile } from 'node:fs/promises'
import type { z } from 'zod'
import { Fault } from '../core/model'

/** A JSON file named by an option, as it was written and checked; `what` names it in faults. */
export async function jsonIn<T>(
  file: string,
  what: string,
  option: string,
  schema: z.ZodType<T>,
): Promise<{ data: T; raw: unknown }> {
  let text: string
  try {
    text = await readFile(file, 'utf8')
  } catch (error) {
    throw new Fault(
      'bad-file',
      `The ${what} cannot be read (${error instanceof Error ? error.message : ''}). Mend the file, or leave --${option} out.`,
      file,
    )
  }
  return { data: jsonFrom(text, what, file, schema), raw: JSON.parse(text) }
}

/** JSON, checked; `what` and the file name it in faults. */
export function jsonFrom<T>(text: string, what: string, file: string, schema: z.ZodType<T>): T {
  let raw: unknown
  try {
    raw = JSON.parse(text)
  } catch (error) {
    throw new Fault(
      'bad-file',
      `The ${what} cannot be read (${error instanceof Error ? error.message : ''}). Mend the file.`,
      file,
    )
  }
  const parsed = schema.safeParse(raw)
  if (parsed.success) return parsed.data
  const issue = parsed.error.issues[0]
  throw new Fault(
    'bad-file',
    `The ${what} is not right at ${issue?.path.join('.') || 'its top'}: ${issue?.message}.`,
    file,
  )
}
