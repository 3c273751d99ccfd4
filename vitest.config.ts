import { defineConfig } from 'vitest/config'

export default defineConfig({
  test: {
    testTimeout: 45_000,
    hookTimeout: 90_000,
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
          name: 'around it',
          include: ['{app,server,world,demo}/**/*.test.ts'],
          sequence: { groupOrder: 1 },
        },
      },
    ],
  },
})
