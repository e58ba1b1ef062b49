export { BUDGETS, Budget } from './budgets.ts';
