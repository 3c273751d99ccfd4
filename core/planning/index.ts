export * from './zone'
export * from './rhythm'
export * from './random'
export { isQuiet } from './openings'
export { bareWords } from './sameWords'
export { plan, planChecked, priceOf } from './plan'
export {
  PlanInput,
  USUAL_WEIGHTS,
  Weights,
  type Placement,
  type PlanOutput,
  type PlanPost,
  type Reason,
} from './rules'
export { proposedRhythm, rhythmWithin } from './proposed'
