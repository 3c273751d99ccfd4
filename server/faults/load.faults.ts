import { describe, expect, it } from 'vitest'
import { temporaryFolder } from '../../e2e/servers'
import { startPostgres } from '../testing/postgres'
import { load, whole } from './load'

const POSTS = 20_000

describe(`${POSTS} posts that are due within ten minutes, for 200 accounts`, () => {
  it.each([0, 0.05])('go out once each and in order, a share of %f in trouble', async (trouble) => {
    const folder = temporaryFolder()
    const { sum, ...figures } = await load({ folder: folder.path, accounts: 200, posts: POSTS, trouble })
    process.stderr.write(`${JSON.stringify(figures)}\n`)
    expect(sum).toEqual(whole(POSTS))
    folder.remove()
  })

  it.each([0, 0.05])(
    'are shared by two servers on one PostgreSQL, a share of %f in trouble',
    async (trouble) => {
      const folder = temporaryFolder()
      const postgres = startPostgres()
      if (!postgres) throw new Error('PostgreSQL could not be started here.')
      const { sum, ...figures } = await load({
        folder: folder.path,
        accounts: 200,
        posts: POSTS,
        trouble,
        databaseUrl: postgres.url,
        servers: 2,
      })
      process.stderr.write(`${JSON.stringify(figures)}\n`)
      expect(sum).toEqual(whole(POSTS))
      postgres.stop()
      folder.remove()
    },
  )
})
