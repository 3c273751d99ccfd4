import { createCipheriv, createDecipheriv, createHash, randomBytes } from 'node:crypto'
import { chmodSync, existsSync, readFileSync, renameSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { Fault } from '../../core/model'

const FORM = 'v1'

/**
 * Seals what must not lie in the clear: tokens, keys of services. AES-256-GCM (NIST SP 800-38D) under a key of 32 bytes.
 * A sealed text is `v1.KEY.NONCE.TAG.WORDS` in base64url, where KEY names the key by eight letters of its hash.
 */
export class Secrets {
  readonly #key: Buffer

  constructor(key: Buffer) {
    if (key.length !== 32)
      throw new Fault('not-ready', 'The key for secrets has to be 32 bytes, written in base64 (44 letters).')
    this.#key = key
  }

  seal(words: string): string {
    const nonce = randomBytes(12)
    const cipher = createCipheriv('aes-256-gcm', this.#key, nonce)
    const sealed = Buffer.concat([cipher.update(words, 'utf8'), cipher.final()])
    const parts = [nonce, cipher.getAuthTag(), sealed].map((b) => b.toString('base64url'))
    return [FORM, nameOf(this.#key), ...parts].join('.')
  }

  /** The words of a sealed text. Throws `not-ready` where another key sealed it, or it was changed. */
  open(sealed: string): string {
    const [form, key, nonce, tag, words] = sealed.split('.')
    if (form !== FORM || !nonce || !tag || words === undefined)
      throw new Fault('not-ready', 'A secret in the database is not in a form that this server knows.')
    if (key !== nameOf(this.#key))
      throw new Fault(
        'not-ready',
        'The secrets in the database were sealed under another key. Give the server the key it had before: the file “key” in its data folder, or DRIPLINE_KEY.',
      )
    try {
      const decipher = createDecipheriv('aes-256-gcm', this.#key, Buffer.from(nonce, 'base64url'))
      decipher.setAuthTag(Buffer.from(tag, 'base64url'))
      return decipher.update(Buffer.from(words, 'base64url'), undefined, 'utf8') + decipher.final('utf8')
    } catch {
      throw new Fault('not-ready', 'A secret in the database was changed from outside and cannot be opened.')
    }
  }
}

/** Whether a text is sealed. */
export function isSealed(text: string): boolean {
  return text.startsWith(`${FORM}.`) && text.split('.').length === 5
}

function nameOf(key: Buffer): string {
  return createHash('sha256').update(key).digest('base64url').slice(0, 8)
}

/** The key of a data folder: from the environment (base64) where it is given, else from the folder's file, made at first. */
export function keyOf(folder: string, fromEnvironment: string | undefined): Buffer {
  if (fromEnvironment) return Buffer.from(fromEnvironment, 'base64')
  const path = join(folder, 'key')
  if (!existsSync(path)) return renewKey(folder)
  chmodSync(path, 0o600)
  return Buffer.from(readFileSync(path, 'utf8').trim(), 'base64')
}

/** Makes a new key and puts it in the folder's file, readable by its owner alone. */
export function renewKey(folder: string, key = randomBytes(32)): Buffer {
  const path = join(folder, 'key')
  writeFileSync(`${path}.new`, `${key.toString('base64')}\n`, { mode: 0o600 })
  renameSync(`${path}.new`, path)
  return key
}
