export { isSame } from '../own/index.ts';
export { compareContents } from './compare.ts';
export {
  beginEditing,
  type Editing,
  type EditingEvent,
  editingAfter,
  type SaveState,
  waitsToBeKept,
} from './editing.ts';
export { type DesignFile, designFile, fromDesignFile } from './file.ts';
export type { Change, DesignFinding, DesignKind, Merged, Reference } from './kind.ts';
export { type Json, type MergeRules, mergeContents } from './merge.ts';
export { placeholdersIn } from './placeholders.ts';
export {
  type HowSaid,
  howSaid,
  namedBeyond,
  type PlacedText,
  type Say,
  sayIn,
  stateOf,
  type TextKind,
  type Translation,
  type TranslationState,
  type Translations,
  textsIn,
  translated,
} from './translations.ts';
