import { defineConfig } from 'vitest/config'

/** The long load and fault tests: `npm run test:faults`. `npm test` has a short form of each. */
export default defineConfig({
  test: {
    include: ['server/faults/**/*.faults.ts'],
    testTimeout: 1_800_000,
    hookTimeout: 120_000,
    fileParallelism: false,
    reporters: ['verbose'],
  },
})
