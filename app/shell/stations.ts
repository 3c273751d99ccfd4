/** The stations in the order of the work. A station joins when it is built; keys keep their numbers. */
export const STATIONS = [
  { key: '1', name: 'Desk', path: '/' },
  { key: '2', name: 'Pipelines', path: '/pipelines' },
  { key: '3', name: 'Intake', path: '/intake' },
  { key: '4', name: 'Writing', path: '/writing' },
  { key: '5', name: 'Horizon', path: '/horizon' },
  { key: '6', name: 'Dispatch', path: '/dispatch' },
  { key: '7', name: 'Results', path: '/results' },
] as const

export type StationName = (typeof STATIONS)[number]['name']
