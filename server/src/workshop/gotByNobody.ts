import { namesIn } from '@tolvek/core/expression';
import { ASKING, type Edition, type Finding, type FormDesign, whoGets } from '@tolvek/core/form';
import { isRelation, wordsIn } from '@tolvek/core/people';
import { said } from '@tolvek/words';
import { sql } from 'drizzle-orm';
import { LRUCache } from 'lru-cache';
import { type FormRow, registerOfForm } from '../form/queries.ts';
import { todayAt } from '../people/settle.ts';
import { people } from '../people/tables.ts';
import { canonicalJson } from '../platform/canonical.ts';
import { accessTurns, nowIn, type Reader } from '../platform/database.ts';
import { openingsOf } from './whoGets.ts';

/** What was found, by connection: by what the editions are, and by who is here and may do what. */
const kept = new WeakMap<object, LRUCache<string, readonly Finding[]>>();

/** Whether everybody can be asked whether it is theirs: not where that hangs on a request, or on what it holds. */
function isForPeople({ audience, when, on, elsewhere }: Edition, { fields }: FormDesign): boolean {
  const relates = wordsIn({ ...audience, outOf: [] }).some(isRelation) || audience.requester === 'in';
  const names = namesIn(when);
  return on && !relates && (elsewhere !== undefined || !fields.some(({ key }) => names.includes(key)));
}

/** What the findings depend on: it is looked again only when some of it is another. */
function standsFor(db: Reader, { id, registerId }: FormRow, { editions = [], fields, parts }: FormDesign): string {
  const newest = db.get<{ readonly n: number | null }>(sql`select max(rowid) as n from ${people}`).n;
  const leads = editions.some(({ elsewhere, on }) => on && elsewhere);
  const today = todayAt(db, nowIn(db));
  return canonicalJson([id, registerId, editions, leads ? [fields, parts] : null, newest, accessTurns(db), today]);
}

/**
 * Editions of a draft that nobody gets, of all who are here today and somebody unknown, at none of the stages where they
 * could be given: because they are for nobody, or because whoever they fit gets one before.
 */
export function gotByNobody(db: Reader, form: FormRow, design: FormDesign): readonly Finding[] {
  const { editions = [] } = design;
  if (editions.length === 0) return [];
  let known = kept.get(db);
  if (!known) kept.set(db, (known = new LRUCache<string, readonly Finding[]>({ max: 200 })));
  const name = standsFor(db, form, design);
  let found = known.get(name);
  if (!found) known.set(name, (found = lookedAt(db, { ...form, draft: design }, editions)));
  return found;
}

function lookedAt(db: Reader, form: FormRow, editions: readonly Edition[]): readonly Finding[] {
  const stages = [ASKING, ...registerOfForm(db, form.id).stages.flatMap(({ key, retired }) => (retired ? [] : [key]))];
  const left = new Map<Edition, boolean>(
    editions.flatMap((edition) => (isForPeople(edition, form.draft) ? [[edition, false]] : [])),
  );
  for (const stage of stages) {
    if (![...left.keys()].some((edition) => edition.stages?.includes(stage) ?? true)) continue;
    const { openings, unknown } = openingsOf(db, form, editions, { stage, as: '' });
    const { taken } = whoGets(editions, stage === ASKING ? [...openings, unknown] : openings);
    for (const [place, edition] of editions.entries()) {
      const { gets = 0, byAnswers = 0, fits = 0 } = taken[place] ?? {};
      if (gets + byAnswers > 0) left.delete(edition);
      else if (fits > 0 && left.has(edition)) left.set(edition, true);
    }
  }
  return [...left].map(([{ id, name }, fits]): Finding => {
    const message = said(fits ? 'findings:editionGetsBefore' : 'findings:editionGetsNobody', { edition: name });
    return { severity: 'caution', page: 'editions', at: id, message };
  });
}
