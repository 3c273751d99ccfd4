export { waitingFor } from './waiting'
