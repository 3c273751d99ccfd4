import { readFile } from 'node:fs/promises'
import { parseArgs } from 'node:util'
import { asFault, Fault } from '../core/model'
import { HELP } from './help'
import { VERBS, type Options } from './verbs'

/** Where a run writes its lines. */
export interface Streams {
  out: (line: string) => void
  err: (line: string) => void
}

/** Runs one command line and gives the exit status: 0, or 2 where anything went wrong. */
export async function run(args: readonly string[], streams: Streams): Promise<number> {
  try {
    const { positionals, values } = parse(args)
    const [verb, ...files] = positionals
    if (values.help || !verb) {
      streams.out(HELP)
      return verb || values.help ? 0 : 2
    }
    const action = VERBS[verb]
    if (!action)
      throw new Fault(
        'bad-request',
        `There is no verb ${verb}. Known are ${Object.keys(VERBS).join(', ')}; see --help.`,
        verb,
      )
    if (files.length === 0) throw new Fault('bad-request', `The verb ${verb} wants a file. See --help.`, verb)
    if (files.length === 1) {
      streams.out(JSON.stringify(await one(action, files[0] as string, values)))
      return 0
    }
    let status = 0
    for (const file of files) {
      try {
        streams.out(JSON.stringify({ file, result: await one(action, file, values) }))
      } catch (error) {
        status = 2
        streams.out(JSON.stringify({ file, error: asFault(error, 'bad-file') }))
      }
    }
    return status
  } catch (error) {
    streams.err(JSON.stringify(asFault(error, 'bad-file')))
    return 2
  }
}

async function one(action: (typeof VERBS)[string], file: string, options: Options): Promise<unknown> {
  let bytes: Uint8Array
  try {
    bytes = await readFile(file)
  } catch (error) {
    const code = (error as NodeJS.ErrnoException).code
    throw new Fault(
      'bad-file',
      code === 'ENOENT' ? `There is no file ${file}.` : `${file} cannot be read (${code ?? 'unknown'}).`,
      file,
    )
  }
  try {
    return await action(bytes, file, options)
  } catch (error) {
    const fault = asFault(error, 'bad-file')
    throw new Fault(fault.code, fault.message, fault.where ?? file)
  }
}

function parse(args: readonly string[]): { positionals: string[]; values: Options } {
  try {
    return parseArgs({
      args: [...args],
      allowPositionals: true,
      options: {
        help: { type: 'boolean' },
        url: { type: 'string' },
        as: { type: 'string' },
        count: { type: 'string' },
        networks: { type: 'string' },
        rhythm: { type: 'string' },
        seed: { type: 'string' },
        house: { type: 'string' },
        brief: { type: 'string' },
        angle: { type: 'string' },
        wordings: { type: 'string' },
        item: { type: 'string' },
        look: { type: 'string' },
        shape: { type: 'string' },
      },
    })
  } catch (error) {
    throw new Fault('bad-request', `${error instanceof Error ? error.message : String(error)} See --help.`)
  }
}
