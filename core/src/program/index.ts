export {
  EVENT_MEDIA,
  eventOf,
  outcomeOf,
  signedPart,
  type ToldAnswer,
  type ToldEvent,
} from './event.ts';
export {
  actorOf,
  isHookAddress,
  MOST_OF_PROGRAM,
  PROGRAM_RIGHTS,
  type Program,
  type ProgramRight,
  programIn,
  viewerOfProgram,
} from './program.ts';
export { PROGRAM } from './programDesign.ts';
