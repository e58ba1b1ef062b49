import type { Viewer } from '@tolvek/core/people';
import { PROGRAM, type Program, viewerOfProgram } from '@tolvek/core/program';
import { type DesignRow, designByKey, designsOf } from '../design/queries.ts';
import type { Reader } from '../platform/database.ts';

/** A program as a design. It is in force at once, so that its draft is what counts. */
export const programByKey = (db: Reader, key: string): DesignRow<Program> | undefined => designByKey(db, PROGRAM, key);

/** All programs, as they are in force, by name. */
export const allPrograms = (db: Reader): readonly Program[] =>
  designsOf(db, PROGRAM)
    .map(({ draft }) => draft)
    .sort((a, b) => a.name.localeCompare(b.name));

/** The programs that can be told of what happens. */
export const programNames = (db: Reader): { key: string; name: string }[] =>
  allPrograms(db).flatMap(({ key, name, address, retired }) => (retired || address === '' ? [] : [{ key, name }]));

/** What a program is called; its key where there is none any more. */
export const programNamed = (db: Reader, key: string): string => programByKey(db, key)?.draft.name ?? key;

/** A program that is in use, as what decides about people knows it. */
export function viewerOfKey(db: Reader, key: string): Viewer | null {
  const program = programByKey(db, key)?.draft;
  return program && !program.retired ? viewerOfProgram(program) : null;
}
