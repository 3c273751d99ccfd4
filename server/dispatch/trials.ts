import { asFault, Fault, type Attempt, type Payload, type Trial } from '../../core/model'
import type { Database } from '../database'
import type { Connector, MediaFile } from './connector'
import type { Links } from './links'

/** How long after its start an unfinished trial counts as left behind, in real milliseconds. */
const LEFT_BEHIND = 60_000

interface Row {
  id: string
  account: string
  payload: string
  remote_id: string | null
}

/**
 * Test deliveries: a post that is really sent, read back as it arrived, and taken down again. Each is written down
 * before it is sent, so that one that a crash or a lost answer left standing is taken down later: what was sent and
 * never answered is found again under the same idempotency key.
 */
export class Trials {
  readonly #database: Database
  readonly #links: Links
  readonly #connector: Connector

  constructor(parts: { database: Database; links: Links; connector: Connector }) {
    this.#database = parts.database
    this.#links = parts.links
    this.#connector = parts.connector
  }

  /** Sends, reads back and takes down. What the network refuses is an outcome, not a fault. */
  async run(id: string, account: string, payload: Payload): Promise<Trial> {
    const { network, token } = await this.#links.token(account)
    const media = await this.#media(payload)
    await this.#database.query(
      `insert into trials (id, account, payload, begun_at) values ($1, $2, $3, $4)`,
      [id, account, JSON.stringify(payload), Date.now()],
    )
    const { outcome, attempt } = await this.#connector.publish(network, token, keyOf(id), payload, media)
    if (outcome.kind !== 'published') {
      // Without an answer nobody knows whether it stands: it is looked for again.
      if (attempt.answer !== null) await this.#forget(id)
      return {
        arrived: false,
        takenDown: attempt.answer !== null,
        message: outcome.reason,
        shown: null,
        publicUrl: null,
        attempts: [attempt],
      }
    }
    await this.#database.query(`update trials set remote_id = $2 where id = $1`, [id, outcome.remoteId])
    const attempts: Attempt[] = [attempt]
    const read = await this.#connector.read(network, token, outcome.remoteId)
    attempts.push(read.attempt)
    let takenDown = true
    let message = 'It arrived, and was taken down again.'
    try {
      attempts.push(await this.#connector.takeDown(network, token, outcome.remoteId))
      await this.#forget(id)
    } catch (error) {
      takenDown = false
      message = `It arrived and still stands: ${asFault(error).message} It is taken down as soon as the network lets us.`
    }
    return { arrived: true, takenDown, message, shown: read.shown, publicUrl: outcome.publicUrl, attempts }
  }

  /** Takes down what was begun before a moment (real milliseconds) and left standing. Gives how many stand still. */
  async sweep(before = Date.now() - LEFT_BEHIND): Promise<number> {
    const rows = await this.#database.query<Row>(`select * from trials where begun_at < $1`, [before])
    let left = 0
    for (const row of rows) if (!(await this.#takeDown(row).catch(() => false))) left++
    return left
  }

  async #takeDown({ id, account, payload, remote_id }: Row): Promise<boolean> {
    const { network, token } = await this.#links.token(account)
    let remote = remote_id
    if (remote === null) {
      const sent = JSON.parse(payload) as Payload
      const { outcome } = await this.#connector.publish(
        network,
        token,
        keyOf(id),
        sent,
        await this.#media(sent),
      )
      if (outcome.kind === 'published') remote = outcome.remoteId
      else if (outcome.kind === 'refused') {
        await this.#forget(id)
        return true
      } else return false
      await this.#database.query(`update trials set remote_id = $2 where id = $1`, [id, remote])
    }
    await this.#connector.takeDown(network, token, remote)
    await this.#forget(id)
    return true
  }

  async #media(payload: Payload): Promise<MediaFile[]> {
    const files: MediaFile[] = []
    for (const { hash, alt } of payload.media) {
      const [row] = await this.#database.query<{ type: string; bytes: Uint8Array }>(
        `select type, bytes from media where hash = $1`,
        [hash],
      )
      if (!row) throw new Fault('bad-request', 'Its picture did not arrive. Try the test again.', hash)
      files.push({ bytes: row.bytes, type: row.type, alt })
    }
    return files
  }

  async #forget(id: string): Promise<void> {
    await this.#database.query(`delete from trials where id = $1`, [id])
  }
}

const keyOf = (id: string): string => `trial:${id}`
