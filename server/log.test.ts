import { describe, expect, it } from 'vitest'
import { logTo, type LogForm } from './log'

function written(form: LogForm, say: (log: ReturnType<typeof logTo>) => void): string[] {
  const lines: string[] = []
  say(logTo(form, { write: (text) => lines.push(text) }))
  return lines
}

describe('the log', () => {
  it('holds as JSON a line each, with time, level, sentence and what belongs to it', () => {
    const [line, ...more] = written('json', (log) => log.info({ post: 'p', tries: 2 }, 'It was carried out.'))
    expect(more).toEqual([])
    expect(line).toMatch(/^\{.*\}\n$/)
    const { time, ...rest } = JSON.parse(line ?? '') as { time: string }
    expect(rest).toEqual({ level: 'info', post: 'p', tries: 2, msg: 'It was carried out.' })
    expect(Math.abs(Date.parse(time) - Date.now())).toBeLessThan(60_000)
  })

  it('keeps a fault with where it came from', () => {
    const [line] = written('json', (log) => log.error({ err: new Error('Disk.') }, 'It broke.'))
    expect(JSON.parse(line ?? '')).toMatchObject({
      level: 'error',
      err: { type: 'Error', message: 'Disk.', stack: expect.stringContaining('log.test') as string },
    })
  })

  it('holds nothing else that a fault carries', () => {
    const fault = Object.assign(new Error('Out of range.'), { code: '22003', params: ['secret words'] })
    for (const form of ['json', 'plain'] as const) {
      const [line] = written(form, (log) => log.error({ err: fault }, 'It broke.'))
      expect(line).toContain('Out of range.')
      expect(line).not.toContain('secret words')
      if (form === 'json') expect(JSON.parse(line ?? '')).toMatchObject({ err: { code: '22003' } })
    }
  })

  it('says in plain what went wrong, and nothing of what went well', () => {
    const lines = written('plain', (log) => {
      log.info('All is well.')
      log.warn('A connection broke.')
      log.error({ err: new Error('Disk.') }, 'It broke.')
    })
    expect(lines).toEqual([
      'A connection broke.\n',
      expect.stringMatching(/^It broke\. Error: Disk\.\n\s+at /),
    ])
  })
})
