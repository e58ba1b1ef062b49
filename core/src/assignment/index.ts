export {
  type Asked,
  type Candidate,
  type Chosen,
  chooseHandler,
  type DutyAsked,
  HANDLER_WAYS,
  type Handled,
  type HandlerRule,
  type HandlerWay,
  loadOf,
  type PassedOver,
  weightOf,
} from './assignment.ts';
export { canDo, isFresh, type SkillAsked, type SkillHeld } from './skills.ts';
