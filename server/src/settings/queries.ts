import {
  DESK,
  DESK_KEY,
  type DeskSettings,
  NEW_DESK,
  NEW_PROFILE,
  PROFILE,
  PROFILE_KEY,
  type ProfileDesign,
  wholeDesk,
} from '@tolvek/core/settings';
import { designByKey } from '../design/queries.ts';
import type { Reader } from '../platform/database.ts';

/** What desks were read as, by what is kept of them: the same is the same. */
const read = new WeakMap<object, DeskSettings>();

/** The desk as it is set; as a new one where it is not laid yet. It is in force at once, so that its draft counts. */
export function deskOf(db: Reader): DeskSettings {
  const draft = designByKey(db, DESK, DESK_KEY)?.draft;
  if (!draft) return NEW_DESK;
  let found = read.get(draft);
  // What an earlier release did not know is as a new desk has it.
  if (!found) {
    found = wholeDesk(draft);
    read.set(draft, found);
  }
  return found;
}

/** The fields of people’s profiles, in force at once; none until the coordinator chooses some. */
export const profileDesignOf = (db: Reader): ProfileDesign =>
  designByKey(db, PROFILE, PROFILE_KEY)?.draft ?? NEW_PROFILE;
