import {
  cpSync,
  fstatSync,
  fsyncSync,
  mkdirSync,
  readdirSync,
  readFileSync,
  statSync,
  writeFileSync,
} from 'node:fs'
import { join } from 'node:path'
import { afterAll, describe, expect, it } from 'vitest'
import { temporaryFolder } from '../../e2e/servers'
import { openEmbedded } from './embedded'

/*
 * A loss of power, played: of each file that was written since the engine was opened, the disk has what it held when it was
 * last asked for, and nothing where it never was. Names of files are taken to have reached the disk, as a file system with a
 * journal has it.
 */
describe('what was committed', () => {
  const folder = temporaryFolder()
  afterAll(() => folder.remove())

  const filesOf = (at: string): string[] =>
    readdirSync(at, { recursive: true, encoding: 'utf8' }).filter((f) => statSync(join(at, f)).isFile())

  it('is there after a loss of power, also of one right after a checkpoint', async () => {
    const [before, live, after] = ['before', 'live', 'after'].map((name) => join(folder.path, name)) as [
      string,
      string,
      string,
    ]
    await (await openEmbedded(before)).close()
    cpSync(before, live, { recursive: true })
    const atStart = new Map(filesOf(live).map((f) => [statSync(join(live, f)).ino, join(before, f)]))
    const pathOf = (inode: number) => filesOf(live).find((f) => statSync(join(live, f)).ino === inode)
    const onDisk = new Map<number, Buffer>()
    let asked = 0
    const engine = await openEmbedded(live, (descriptor) => {
      const { ino } = fstatSync(descriptor)
      const path = pathOf(ino)
      if (path !== undefined) onDisk.set(ino, readFileSync(join(live, path)))
      asked++
      fsyncSync(descriptor)
    })
    await engine.exec('create table kept (n int)')
    for (let n = 0; n < 20; n++) {
      const earlier = asked
      await engine.query('insert into kept values ($1)', [n])
      expect(asked).toBeGreaterThan(earlier)
      if (n === 10) await engine.exec('checkpoint')
    }

    for (const file of filesOf(live)) {
      const { ino, size } = statSync(join(live, file))
      const start = atStart.get(ino)
      const bytes = onDisk.get(ino) ?? (start === undefined ? Buffer.alloc(size) : readFileSync(start))
      mkdirSync(join(after, file, '..'), { recursive: true })
      writeFileSync(join(after, file), bytes)
    }
    for (const empty of readdirSync(live, { recursive: true, encoding: 'utf8' }))
      if (statSync(join(live, empty)).isDirectory()) mkdirSync(join(after, empty), { recursive: true })
    await engine.close()

    const again = await openEmbedded(after)
    const { rows } = await again.query<{ n: number }>('select n from kept order by n')
    expect(rows.map((r) => r.n)).toEqual(Array.from({ length: 20 }, (_, n) => n))
    await again.close()
  })

  it('is not lost where making the folder was broken off', async () => {
    const spool = join(folder.path, 'spool')
    mkdirSync(`${spool}.new/base`, { recursive: true })
    writeFileSync(`${spool}.new/PG_VERSION`, '17\n')
    const engine = await openEmbedded(spool)
    expect((await engine.query<{ one: number }>('select 1 as one')).rows).toEqual([{ one: 1 }])
    await engine.close()
  })
})
