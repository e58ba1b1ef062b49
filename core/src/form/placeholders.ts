export { placeholdersIn } from '../design/index.ts';
