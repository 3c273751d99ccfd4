export { useDeskRows } from './useDeskRows'
export { postsByHand, waitingFor } from './waiting'
