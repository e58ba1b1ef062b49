export { type Intake, type IntakeContext, prepareIntake, type TakenIn } from './takeIn.ts';
