export { type Asker, factsAt } from './factsAt.ts';
export { type Intake, type IntakeContext, prepareIntake, type TakenIn } from './takeIn.ts';
