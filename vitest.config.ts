import { defineConfig } from 'vitest/config'

export default defineConfig({
  test: {
    include: ['{core,cli,app,server,train,world,demo}/**/*.test.ts'],
    testTimeout: 45_000,
    hookTimeout: 90_000,
    // One of them mostly waits: for the leases of a server that was killed.
    maxWorkers: 3,
    reporters: ['default', ['json', { outputFile: 'test-results/unit.json' }]],
  },
})
