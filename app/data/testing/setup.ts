import { vi } from 'vitest'

// There are no web workers in Node: their work is done in the test's own process.
vi.mock('../../workers', async () => (await import('./workers')).inProcess())
