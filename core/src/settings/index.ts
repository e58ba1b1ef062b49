export { ACCENT_KEYS, ACCENTS, type AccentKey } from './accents.ts';
export {
  DESK,
  DESK_KEY,
  type DeskSettings,
  type FirstDay,
  KEPT_DAYS,
  type KeptThing,
  LINK_DAYS,
  type LinkUse,
  NEW_DESK,
  type SkillSource,
  signatureOf,
  wholeDesk,
} from './desk.ts';
export {
  NEW_PROFILE,
  PROFILE,
  PROFILE_KEY,
  type ProfileDesign,
  profileAfter,
  profileFieldsOf,
  type ReadProfile,
  readProfile,
} from './profile.ts';
export { providerKey } from './provider.ts';
