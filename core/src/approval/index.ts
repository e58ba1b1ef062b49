export {
  type ApprovalPath,
  type ApprovalState,
  type ApprovalStep,
  mayNotDecide,
  type Verdict,
  verdictProblem,
} from './approval.ts';
