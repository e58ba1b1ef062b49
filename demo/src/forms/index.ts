export { dive } from './dive.ts';
export type { DemoForm } from './ground.ts';
export { laboratory } from './laboratory.ts';
export { kitCheck, tripReport } from './reports.ts';
export { SKILLED, skills } from './skills.ts';
export { concern, kit, purchase, school } from './stores.ts';
export { budgets, kitStore, methods, rooms, THINGS, VOCABULARIES, vessels } from './things.ts';
export { vessel } from './vessel.ts';
