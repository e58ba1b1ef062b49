export { LANGUAGE_NAMES, LANGUAGES, type Language } from './languages.ts';
export { type Refusal, type RefusalName, refused, WAY_NAMES, type Way } from './refusal.ts';
export {
  type Area,
  type Given,
  type Key,
  type Length,
  type Money,
  type Param,
  type Params,
  type Said,
  said,
  type Words,
} from './said.ts';
