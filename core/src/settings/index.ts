export { ACCENT_KEYS, ACCENTS, type AccentKey } from './accents.ts';
export {
  DESK,
  DESK_KEY,
  type DeskSettings,
  type FirstDay,
  LINK_DAYS,
  type LinkUse,
  NEW_DESK,
  signatureOf,
} from './desk.ts';
