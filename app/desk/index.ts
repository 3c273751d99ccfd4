export { postsByHand, waitingFor } from './waiting'
