import { defineConfig } from 'vitest/config'

/**
 * Files that put something of their own in the place of a module, or move the clock and run the runner, whose memory no
 * other file may then have.
 */
const APART = [
  'app/data/{brands,life,refresh}.test.ts',
  'app/data/actions/{byItsWriter,occasions,pictures}.test.ts',
  'app/data/runner/*.test.ts',
]

export default defineConfig({
  test: {
    // Long enough for a busy machine: what passes does not wait for it.
    testTimeout: 90_000,
    hookTimeout: 120_000,
    // One of them mostly waits: for the leases of a server that was killed.
    maxWorkers: 3,
    reporters: ['default', ['json', { outputFile: 'test-results/unit.json' }]],
    projects: [
      {
        extends: true,
        // Pure, so that the files of one worker may share what they import: the model of English is large.
        test: {
          name: 'core',
          include: ['{core,cli,train}/**/*.test.ts'],
          isolate: false,
          sequence: { groupOrder: 0 },
        },
      },
      {
        extends: true,
        test: {
          name: 'server and world',
          include: ['{server,world,demo}/**/*.test.ts'],
          isolate: false,
          sequence: { groupOrder: 1 },
        },
      },
      {
        extends: true,
        test: {
          name: 'app',
          include: ['app/**/*.test.ts'],
          exclude: APART,
          setupFiles: ['app/data/testing/setup.ts'],
          isolate: false,
          sequence: { groupOrder: 1 },
        },
      },
      {
        extends: true,
        test: {
          name: 'app, each by itself',
          include: APART,
          setupFiles: ['app/data/testing/setup.ts'],
          sequence: { groupOrder: 1 },
        },
      },
    ],
  },
})
