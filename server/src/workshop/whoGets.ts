import type { AnswerOf } from '@tolvek/contract';
import { momentArriving } from '@tolvek/core/access';
import { ASKING, ASKS, type Edition, fieldsAsked, type Opening, whoGets } from '@tolvek/core/form';
import { factsAt } from '@tolvek/core/intake';
import { asksRights, nameCompared, profileConditionsIn, STRANGER } from '@tolvek/core/people';
import type { RequestFacts } from '@tolvek/core/register';
import { eq } from 'drizzle-orm';
import { calendarOf } from '../calendar/queries.ts';
import { currentRelease, type FormRow, formNamed } from '../form/queries.ts';
import { departmentOf, profileOf, rightsIn } from '../people/queries.ts';
import { todayAt } from '../people/settle.ts';
import { people } from '../people/tables.ts';
import { nowIn, type Reader } from '../platform/database.ts';
import { wordNames } from './plan.ts';
import { concernedBy } from './planEffect.ts';

type Told = AnswerOf<'editionsGiven'>;

/** Which openings are looked at, and who of them is told one by one. */
interface Looking {
  readonly stage: string;
  readonly as: string;
  readonly find: string;
  readonly edition?: string | undefined;
  readonly changed: boolean;
}

/** So many people are told one by one; the others are counted. */
const TOLD = 60;
/** So many are named where a number says the rest. */
const NAMED = 12;

/** Everybody who is here as an edition could be given to them, and somebody unknown, in a moment of a request or while they ask. */
interface Openings {
  readonly rows: readonly Pick<typeof people.$inferSelect, 'id' | 'name' | 'email' | 'kind' | 'profile'>[];
  readonly openings: readonly Opening[];
  readonly unknown: Opening;
}

/** `editions`: all that are chosen from; `as`: how they stand to the request, as words. */
export function openingsOf(
  db: Reader,
  form: FormRow,
  editions: readonly Edition[],
  { stage, as }: Pick<Looking, 'stage' | 'as'>,
): Openings {
  const rows = db
    .select({ id: people.id, name: people.name, email: people.email, kind: people.kind, profile: people.profile })
    .from(people)
    .where(eq(people.active, true))
    .orderBy(people.name, people.id)
    .all();
  const conditions = editions.flatMap(({ audience }) => profileConditionsIn(audience));
  const known = concernedBy(
    db,
    rows.map(({ id }) => id),
    conditions,
  );
  const isAsked = editions.some(({ audience }) => asksRights(audience));
  const asked = fieldsAsked(form.draft.parts);
  const now = nowIn(db);
  const isAsking = stage === ASKING;
  const relations = as ? as.split(' ') : [];
  const stands = isAsking ? ASKS : { isRequester: relations.includes('requester'), as: relations };
  const calendar = calendarOf(db, form.draft.deadline.calendar);
  const around = { people: [], vocabularies: [] };
  const at = { form: form.key, stage, day: todayAt(db, now) };
  const openingFor = (facts: () => RequestFacts, who: Opening['who']): Opening => {
    let holds: Opening['holds'] | undefined;
    return {
      ...{ who, stands, stage, asked },
      // What nobody asks for is not looked up.
      holds: (condition) => (holds ??= momentArriving(form.draft.fields, at, facts).holds)(condition),
    };
  };
  const openings = rows.map((row, index): Opening => {
    const { personId, groups, kind = row.kind, meets = [] } = known[index] ?? { personId: row.id, groups: [] };
    // By an outside door nobody is known before they have proved who they are: see `unknown`.
    const facts = () =>
      factsAt(
        now,
        calendar,
        kind === 'staff' ? 'staff' : 'outside',
        { id: personId, kind, groups, department: departmentOf(db, personId), profile: profileOf(db, row) },
        around,
      );
    return openingFor(facts, {
      personId,
      groups,
      kind,
      meets,
      ...(isAsked ? { rights: rightsIn(db, personId, form.registerId) } : {}),
    });
  });
  const unknown = openingFor(() => factsAt(now, calendar, 'outside', null, around), STRANGER);
  return { rows, openings, unknown };
}

/**
 * Who is given which edition of a draft, and was by the release in force: everybody who is here, staff and contacts, and
 * somebody unknown; while they ask, or of a request at a stage that they stand to in some way.
 */
export function editionsGiven(db: Reader, key: string, { stage, as, find, edition, changed }: Looking): Told {
  const form = formNamed(db, key);
  const editions = form.draft.editions ?? [];
  const before = currentRelease(db, form)?.design.editions ?? [];
  const { rows, openings, unknown } = openingsOf(db, form, [...editions, ...before], { stage, as });
  const all = whoGets(editions, openings, before);
  const [nobody] = whoGets(editions, [unknown], before).given;
  const idAt = (place: number): string | null => editions[place]?.id ?? null;
  const isWanted = (place: number): boolean => {
    const [row, given] = [rows[place], all.given[place]];
    if (!row || !given) return false;
    if (edition !== undefined && (idAt(given.at) ?? '') !== edition) return false;
    if (changed && idAt(given.at) === given.was) return false;
    return find === '' || nameCompared(`${row.name} ${row.email}`).includes(nameCompared(find));
  };
  const wanted = rows.flatMap((_, place) => (isWanted(place) ? [place] : []));
  const namesAt = (places: readonly number[]): string[] =>
    places.slice(0, NAMED).flatMap((place) => rows[place]?.name ?? []);
  const groupsCalled = wordNames(db, [...editions, ...before]);
  return {
    total: rows.length,
    staff: rows.filter(({ kind }) => kind === 'staff').length,
    editions: editions.map(({ id }, place) => {
      const { gets = 0, fits = 0, caught = [], byAnswers = 0 } = all.taken[place] ?? {};
      const was = all.given.filter((given) => given.was === id).length;
      return {
        id,
        gets,
        was,
        fits,
        byAnswers,
        caught: namesAt(caught),
        moreCaught: Math.max(0, caught.length - NAMED),
      };
    }),
    plain: {
      gets: all.given.filter((given) => given.at < 0).length,
      was: all.given.filter((given) => given.was === null).length,
    },
    moves: movesIn(all.given.map((given) => [given.was, idAt(given.at)] as const)).map(({ from, to, places }) => ({
      ...{ from, to, count: places.length, names: namesAt(places) },
      // What the release in force had and the draft has not any more is called as it was.
      fromName: nameIn(before, from),
    })),
    people: wanted.slice(0, TOLD).flatMap((place) => {
      const [row, given] = [rows[place], all.given[place]];
      if (!row || !given) return [];
      const { id, name, email, kind } = row;
      return [{ id, name, email, kind, gets: idAt(given.at), was: given.was, verdicts: [...given.verdicts] }];
    }),
    more: Math.max(0, wanted.length - TOLD),
    unknown: { gets: idAt(nobody?.at ?? -1), verdicts: [...(nobody?.verdicts ?? [])] },
    words: Object.fromEntries(groupsCalled),
  };
}

const nameIn = (editions: readonly Edition[], id: string | null): string =>
  editions.find((each) => each.id === id)?.name ?? '';

/** Who is given something else than before: from which to which. */
function movesIn(given: readonly (readonly [from: string | null, to: string | null])[]) {
  const found = new Map<string, { readonly from: string | null; readonly to: string | null; places: number[] }>();
  for (const [place, [from, to]] of given.entries()) {
    if (from === to) continue;
    const name = JSON.stringify([from, to]);
    const known = found.get(name) ?? { from, to, places: [] };
    known.places.push(place);
    found.set(name, known);
  }
  return [...found.values()];
}
