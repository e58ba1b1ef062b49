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
