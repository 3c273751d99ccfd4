import type { Database } from './database'

/** How much a connected writer was asked on a day. */
export interface Use {
  words: number
  questions: number
}

/** What a connected writer was asked, by days. */
export class WriterUse {
  readonly #database: Database

  constructor(database: Database) {
    this.#database = database
  }

  async of(day: string): Promise<Use> {
    const [use] = await this.#database.query<{ words: string | number; questions: number }>(
      `select words, questions from writer_use where day = $1`,
      [day],
    )
    return { words: Number(use?.words ?? 0), questions: Number(use?.questions ?? 0) }
  }

  /** Counts one question and its words. */
  async count(day: string, words: number): Promise<void> {
    await this.#database.query(
      `insert into writer_use (day, words, questions) values ($1, $2, 1)
       on conflict (day) do update set words = writer_use.words + excluded.words, questions = writer_use.questions + 1`,
      [day, words],
    )
  }
}
