import {
  addedParts,
  type Difference,
  differenceKey,
  type Edition,
  type Elsewhere,
  type FormDesign,
  type Part,
  partKey,
} from '@tolvek/core/form';
import type { Preset } from '@tolvek/core/register';
import { freshId, movedById } from '../edits.ts';

type Edit = (design: FormDesign) => FormDesign;

/** What is said of where an edition leads: what a form is called, or the address. */
export const ledTo = (
  elsewhere: Elsewhere,
  forms: readonly { readonly key: string; readonly title: string }[],
): string =>
  'form' in elsewhere ? (forms.find(({ key }) => key === elsewhere.form)?.title ?? '?') : elsewhere.address;

const withEditions =
  (next: (editions: readonly Edition[]) => readonly Edition[]): Edit =>
  ({ editions = [], ...design }) => {
    const left = next(editions);
    // A form without any is as it was before there were some.
    return left.length > 0 ? { ...design, editions: left } : design;
  };

/** A new edition, last in the order: for nobody yet, and different in nothing. */
export const addEdition = (id: string, name: string): Edit =>
  withEditions((editions) => [
    ...editions,
    { ...{ id, name, on: true, when: '', differences: [] }, audience: { in: { anyOf: [] }, outOf: [] } },
  ]);

export const freshEditionId = ({ editions = [] }: FormDesign): string =>
  freshId(
    'edition',
    editions.map(({ id }) => id),
  );

export const changeEdition = (id: string, next: (edition: Edition) => Edition): Edit =>
  withEditions((editions) => editions.map((edition) => (edition.id === id ? next(edition) : edition)));

export const removeEdition = (id: string): Edit =>
  withEditions((editions) => editions.filter((edition) => edition.id !== id));

export const moveEdition = (id: string, way: -1 | 1): Edit => withEditions((editions) => movedById(editions, id, way));

/** Another one that differs in the same, right after it: for nobody yet. */
export const likeEdition = (id: string, fresh: string, name: string): Edit =>
  withEditions((editions) =>
    editions.flatMap((edition) =>
      edition.id === id
        ? [edition, { ...edition, id: fresh, name, audience: { in: { anyOf: [] }, outOf: [] } }]
        : [edition],
    ),
  );

/** What an edition says of a part in one respect, where it says something. */
export const saidOf = <Does extends Exclude<Difference['does'], 'only' | 'add'>>(
  { differences }: Edition,
  does: Does,
  part: string,
): Extract<Difference, { does: Does }> | undefined =>
  differences.find((each) => each.does === does && 'part' in each && each.part === part) as never;

/** The edition with a difference, in the place of the one of its kind about the same part. */
export function withDifference(edition: Edition, difference: Difference): Edition {
  const key = differenceKey(difference);
  const isThere = edition.differences.some((each) => differenceKey(each) === key);
  const differences = isThere
    ? edition.differences.map((each) => (differenceKey(each) === key ? difference : each))
    : [...edition.differences, difference];
  return { ...edition, differences };
}

export const withoutDifference = (edition: Edition, key: string): Edition => ({
  ...edition,
  differences: edition.differences.filter((each) => differenceKey(each) !== key),
});

/** Whether a part is there and asked: as the form has it, hidden, or shown and not asked. */
export function withShown(edition: Edition, part: string, how: 'asForm' | 'hide' | 'lock'): Edition {
  const plain = withoutDifference(withoutDifference(edition, `hide ${part}`), `lock ${part}`);
  return how === 'asForm' ? plain : withDifference(plain, { does: how, part });
}

export function withRequired(edition: Edition, part: string, how: 'asForm' | 'require' | 'spare'): Edition {
  const plain = withoutDifference(withoutDifference(edition, `require ${part}`), `spare ${part}`);
  return how === 'asForm' ? plain : withDifference(plain, { does: how, part });
}

type Said = 'asks' | 'help' | 'title' | 'text';

/** Other words for one thing that a part says; `undefined`: as the form has it. */
export function withWords(edition: Edition, part: string, which: Said, words: string | undefined): Edition {
  const next = { ...(saidOf(edition, 'reword', part) ?? { does: 'reword' as const, part }), [which]: words };
  const { asks, help, title, text } = next;
  return [asks, help, title, text].every((each) => each === undefined)
    ? withoutDifference(edition, `reword ${part}`)
    : withDifference(edition, next);
}

/** The options that are offered; all of them: as the form has them. */
export function withOffers(edition: Edition, part: string, offers: readonly string[], all: readonly string[]): Edition {
  return all.every((key) => offers.includes(key))
    ? withoutDifference(edition, `offer ${part}`)
    : withDifference(edition, { does: 'offer', part, offers });
}

/** What stands in a question at first; `undefined`: as the form has it, null: nothing. */
export const withPreset = (edition: Edition, part: string, preset: Preset | null | undefined): Edition =>
  preset === undefined
    ? withoutDifference(edition, `preset ${part}`)
    : withDifference(edition, { does: 'preset', part, preset });

/** Where a part stands: after another, first (null), or as the form has it. */
export const withPlace = (edition: Edition, part: string, after: string | null | undefined): Edition =>
  after === undefined
    ? withoutDifference(edition, `move ${part}`)
    : withDifference(edition, { does: 'move', part, after });

/** These fields and no others; null: all that the form has, and what it will have. */
export const withOnly = (edition: Edition, shows: readonly string[] | null): Edition =>
  shows === null ? withoutDifference(edition, 'only') : withDifference(edition, { does: 'only', shows });

/** A part of its own, changed. */
export const withOwn = (edition: Edition, key: string, change: { adds?: Part; after?: string | null }): Edition => ({
  ...edition,
  differences: edition.differences.map((each) =>
    each.does === 'add' && partKey(each.adds) === key ? { ...each, ...change } : each,
  ),
});

/** Words of its own, after a part: with an id that nothing else has. */
export function addWords(
  edition: Edition,
  design: FormDesign,
  after: string | null,
): { edition: Edition; key: string } {
  const own = addedParts(edition.differences).map(partKey);
  const id = freshId('own-words', [...design.parts.map(partKey), ...own]);
  const adds: Part = { part: 'instruction', id, text: '' };
  return { key: id, edition: withDifference(edition, { does: 'add', after, adds }) };
}

/** A question for a field that the form does not ask for, after a part. */
export const addQuestionOf = (edition: Edition, field: string, after: string | null): Edition =>
  withDifference(edition, {
    does: 'add',
    after,
    adds: { part: 'question', field, asks: '', help: '', required: false },
  });
