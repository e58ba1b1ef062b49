import type { AnswerOf, BodyOf } from '@tolvek/contract';
import { PROGRAM_RIGHTS, type ProgramRight } from '@tolvek/core/program';

export type ProgramDraft = BodyOf<'createProgram'>['program'];
/** A program as its page has it. */
export type Opened = AnswerOf<'program'>;
export type May = ProgramDraft['may'][number];

/** A program of which nothing is said but its name: it may do nothing. */
export const newProgram = (name: string): ProgramDraft => ({ name, note: '', address: '', may: [], groups: [] });

/** The rights that can be added: those that it has not everywhere. */
export const rightsLeft = (may: readonly May[]): readonly ProgramRight[] =>
  PROGRAM_RIGHTS.filter((right) => !may.some((each) => each.right === right && each.register === null));

/** Lets it do something more: everywhere, until a register is chosen. Whoever does something with requests reads them. */
export function withRight(may: readonly May[], right: ProgramRight): readonly May[] {
  const reads = right === 'read:all' || may.some((each) => each.right === 'read:all');
  return [...may, ...(reads ? [] : [{ right: 'read:all', register: null } as const]), { right, register: null }];
}

/** Where it may do something, by its place in the list. What it may do everywhere it is let do once. */
export const inRegister = (may: readonly May[], place: number, register: string | null): readonly May[] =>
  may
    .map((each, at) => (at === place ? { ...each, register } : each))
    .filter(
      (each, at, all) =>
        all.findIndex((other) => other.right === each.right && other.register === each.register) === at,
    );
