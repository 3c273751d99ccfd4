import { pino, type Logger } from 'pino'

/** How the log is written: sentences for whoever reads along, or a JSON object a line for whatever collects logs. */
export type LogForm = 'plain' | 'json'

/**
 * A log on a stream. As `json` it holds everything from `info` on, each line with time, level, sentence and what belongs to
 * it; as `plain` the sentences of what went wrong. Of a fault there is its kind, its sentence, its code and where it arose,
 * and nothing else that it carries: a database hangs the values of its question on it.
 */
export function logTo(form: LogForm, stream: { write(text: string): unknown }): Logger {
  const options = {
    base: null,
    timestamp: pino.stdTimeFunctions.isoTime,
    formatters: { level },
    serializers: { err },
  }
  if (form === 'json') return pino(options, stream)
  const sentences = {
    write(line: string): void {
      const { msg, err } = JSON.parse(line) as { msg: string; err?: { stack?: string; message: string } }
      stream.write(`${msg}${err ? ` ${err.stack ?? err.message}` : ''}\n`)
    },
  }
  return pino({ ...options, level: 'warn' }, sentences)
}

function err(fault: unknown): { type: string; message: string; code?: unknown; stack?: string | undefined } {
  if (!(fault instanceof Error)) return { type: typeof fault, message: String(fault) }
  const { name: type, message, stack } = fault
  return 'code' in fault ? { type, message, code: fault.code, stack } : { type, message, stack }
}

function level(label: string): { level: string } {
  return { level: label }
}

/** The log of this process: DRIPLINE_LOG says its form. */
export const log = logTo(process.env['DRIPLINE_LOG'] === 'json' ? 'json' : 'plain', process.stderr)
