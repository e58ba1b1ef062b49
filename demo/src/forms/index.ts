export { dive } from './dive.ts';
export type { DemoForm } from './ground.ts';
export { laboratory } from './laboratory.ts';
export { concern, kit, purchase, school } from './stores.ts';
export { vessel } from './vessel.ts';
