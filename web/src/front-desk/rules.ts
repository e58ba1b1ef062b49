/** The rules of a form, loaded after the page: a requester can type before they are here. */
export { answersToSend, isUnanswered, prepareCompletion } from '@tolvek/core/form';
export { broughtAlong } from './broughtAlong.ts';
export { canRemove, changeableIn, completedOverTheirs, foundBy, updatingWith, whichProblems } from './updating.ts';
