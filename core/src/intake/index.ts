export {
  type Ahead,
  type AheadDeadline,
  type AheadRing,
  type AheadStage,
  type AheadStep,
  prepareAhead,
} from './ahead.ts';
export { type Asker, factsAt } from './factsAt.ts';
export { OUTSIDE_STEPS, type OutsideFinding, type OutsideStep, outsideFindings } from './outsidePeople.ts';
export { type Intake, type IntakeContext, type PreparedForm, prepareIntake, type TakenIn } from './takeIn.ts';
