import { execFileSync } from 'node:child_process'
import { createDecipheriv } from 'node:crypto'
import { readFileSync, statSync } from 'node:fs'
import { join } from 'node:path'
import { describe, expect, it } from 'vitest'
import { temporaryFolder } from '../../e2e/servers'
import { aGrant, CAPABILITIES } from '../testing/parts'
import { Accounts } from './accounts'
import { layFreshSpool } from '../testing/freshSpool'
import { openDatabase } from './database'
import { resealAll } from './resealing'
import { keysOf, Secrets } from './secrets'
import { Settings } from './settings'

const [one, two] = [Buffer.alloc(32, 1), Buffer.alloc(32, 2)]

describe('secrets', () => {
  it('are sealed by AES-256-GCM, each time otherwise, and opened by who has the key', () => {
    const secrets = new Secrets([one])
    const sealed = secrets.seal('a token – ä')
    expect(sealed).not.toContain('token')
    expect(secrets.seal('a token – ä')).not.toBe(sealed)
    expect(secrets.open(sealed)).toBe('a token – ä')
    expect(new Secrets([two, one]).open(sealed)).toBe('a token – ä')
    const [nonce, tag, words] = sealed
      .split('.')
      .slice(2)
      .map((p) => Buffer.from(p, 'base64url'))
    const by = createDecipheriv('aes-256-gcm', one, nonce!).setAuthTag(tag!)
    expect(Buffer.concat([by.update(words!), by.final()]).toString()).toBe('a token – ä')
  })

  it('are refused with a sentence under another key, changed, or cut', () => {
    const sealed = new Secrets([one]).seal('a token')
    expect(() => new Secrets([two]).open(sealed)).toThrow(/sealed under another key.*DRIPLINE_KEY/)
    // Not the last letter, of which some bits are not read.
    const other = sealed.at(-4) === 'A' ? 'B' : 'A'
    for (const bad of [
      `${sealed.slice(0, -4)}${other}${sealed.slice(-3)}`,
      sealed.replace('v1.', 'v1.x'),
      'plain',
      '',
    ])
      expect(() => new Secrets([one]).open(bad)).toThrow(/secret/)
    expect(() => new Secrets([Buffer.from('short')])).toThrow(/32 bytes/)
  })

  it('have a key in the folder that only its owner reads, the same at every start', () => {
    const folder = temporaryFolder()
    const [first] = keysOf(folder.path, undefined)
    expect(first).toHaveLength(32)
    expect(statSync(join(folder.path, 'key')).mode & 0o077).toBe(0)
    expect(keysOf(folder.path, undefined)).toEqual([first])
    expect(keysOf(folder.path, two.toString('base64'))).toEqual([two])
    folder.remove()
  })

  it('come under a new key by command, those in the clear with them', async () => {
    const folder = temporaryFolder()
    await layFreshSpool(folder.path)
    const look = async () => {
      const database = await openDatabase({ folder: folder.path })
      const secrets = new Secrets(keysOf(folder.path, undefined))
      const accounts = new Accounts(database, secrets, () => CAPABILITIES)
      return { database, secrets, accounts, settings: new Settings(database, secrets) }
    }
    const before = await look()
    const { id } = await before.accounts.keep('murmur', 'stand-in', aGrant({ secret: 'token-9' }), 0)
    await before.accounts.keep('guildhall', 'stand-in', aGrant({ secret: 'token-8' }), 0, 'plain')
    await before.database.query(`update accounts set secret = 'token-8' where account = 'plain'`)
    await before.settings.keep('chat', '{"key":"in the clear"}')
    expect(await resealAll(before.database, before.secrets)).toBe(2)
    expect(await resealAll(before.database, before.secrets)).toBe(0)
    expect(await before.settings.readSealed('chat')).toBe('{"key":"in the clear"}')
    const rows = JSON.stringify(await before.database.query('select secret from accounts'))
    expect(rows).not.toMatch(/token-[89]/)
    await before.database.close()
    const old = readFileSync(join(folder.path, 'key'), 'utf8')
    const said = execFileSync(process.execPath, ['--import', 'tsx', 'server/rotate.ts'], {
      cwd: join(import.meta.dirname, '../..'),
      env: { ...process.env, DATA_DIR: folder.path },
    })
    expect(String(said)).toMatch(/^3 secrets are under a new key/)
    expect(readFileSync(join(folder.path, 'key'), 'utf8')).not.toBe(old)
    const after = await look()
    expect((await after.accounts.login(id)).secret).toBe('token-9')
    expect((await after.accounts.login('plain')).secret).toBe('token-8')
    expect(JSON.stringify(await after.database.query('select secret from accounts'))).not.toBe(rows)
    await after.database.close()
    folder.remove()
  })
})
