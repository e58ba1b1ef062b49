export {
  type ApprovalPath,
  type ApprovalStep,
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
