export {
  type ApprovalPath,
  type ApprovalStep,
  type DecidesBy,
  type LeadsTo,
  leadsTo,
  mayNotDecide,
  type SeatPlan,
  type SeatState,
  type Standing,
  type StepSoFar,
  type Verdict,
  verdictProblem,
  whatNow,
} from './approval.ts';
export { conditionOf, type PathFor, preparePath } from './planned.ts';
