import type { AnswerOf } from '@tolvek/contract';
import { canDo } from '@tolvek/core/assignment';

type Person = AnswerOf<'skills'>['people'][number];
type Held = Person['held'][number];

/** People by what they can do: for each skill the highest level they have, of these the one checked last; null for none. */
export const matrixOf = (
  people: readonly Person[],
  skills: readonly { readonly key: string }[],
): readonly { readonly person: Person; readonly cells: readonly (Held | null)[] }[] =>
  people.map((person) => ({
    person,
    cells: skills.map(
      ({ key }) =>
        person.held
          .filter(({ skill }) => skill === key)
          .toSorted((a, b) => (b.level ?? 0) - (a.level ?? 0) || (b.checked ?? '').localeCompare(a.checked ?? ''))[0] ??
        null,
    ),
  }));

/** The names of those who can do something at a level, checked in time where that is asked. `today`: `YYYY-MM-DD`. */
export const coverageOf = (
  people: readonly Person[],
  skill: string,
  { least, months, today }: { readonly least: number; readonly months: number | null; readonly today: string },
): readonly string[] =>
  people
    .filter(({ held }) => canDo(held, { skill, least, ...(months === null ? {} : { months }) }, today))
    .map(({ name }) => name);
