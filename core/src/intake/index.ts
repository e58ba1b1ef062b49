export { type Asker, factsAt } from './factsAt.ts';
export { type Intake, type IntakeContext, type PreparedForm, prepareIntake, type TakenIn } from './takeIn.ts';
