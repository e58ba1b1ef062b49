/** The rules of a form, loaded after the page: a requester can type before they are here. */
export { answersToSend, isUnanswered, prepareCompletion } from '@tolvek/core/form';
export {
  canRemove,
  changeableIn,
  completedOverTheirs,
  foundBy,
  updatingWith,
  whichProblems,
} from '../fields/updating.ts';
export { broughtAlong, questionsFor } from './broughtAlong.ts';
