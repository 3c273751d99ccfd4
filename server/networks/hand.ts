import { Fault } from '../../core/model'
import type { Connector } from './connector'

/**
 * By hand: the server publishes nothing. At its time the post is laid out on the Desk, to be copied and downloaded, and
 * the person says when it is out.
 */
export function handConnector(): Connector {
  const no = (): Promise<never> =>
    Promise.reject(new Fault('bad-request', 'This account is served by hand; there is nothing to ask of it.'))
  return {
    id: 'hand',
    capabilities: {
      publishes: false,
      reads: false,
      takesDown: false,
      measures: false,
      tagFigures: false,
      targets: 'required',
    },
    authorise: no,
    grant: no,
    check: () => Promise.resolve({ state: 'linked', message: 'Linked.' }),
    publish: () =>
      Promise.resolve({
        outcome: {
          kind: 'by hand',
          reason: 'Its time has come: publish it by hand, and say when it is out.',
        },
        attempts: [],
      }),
    find: () => Promise.resolve({ found: undefined, attempt: null }),
    read: no,
    measures: no,
    takeDown: no,
    tagFigures: no,
  }
}
