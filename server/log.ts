import { pino, type Logger } from 'pino'

/** How the log is written: sentences for whoever reads along, or a JSON object a line for whatever collects logs. */
export type LogForm = 'plain' | 'json'

/**
 * A log on a stream. As `json` it holds everything from `info` on, each line with time, level, sentence and what belongs to
 * it; as `plain` the sentences of what went wrong. No line holds words of a post, an address with its query, or a secret.
 */
export function logTo(form: LogForm, stream: { write(text: string): unknown }): Logger {
  const options = { base: null, timestamp: pino.stdTimeFunctions.isoTime, formatters: { level } }
  if (form === 'json') return pino(options, stream)
  const sentences = {
    write(line: string): void {
      const { msg, err } = JSON.parse(line) as { msg: string; err?: { stack?: string; message: string } }
      stream.write(`${msg}${err ? ` ${err.stack ?? err.message}` : ''}\n`)
    },
  }
  return pino({ ...options, level: 'warn' }, sentences)
}

function level(label: string): { level: string } {
  return { level: label }
}

/** The log of this process: DRIPLINE_LOG says its form. */
export const log = logTo(process.env['DRIPLINE_LOG'] === 'json' ? 'json' : 'plain', process.stderr)
