import type { AnswerOf } from '@tolvek/contract';
import {
  type Audience,
  belongs,
  groupsIn,
  inPlace,
  NO_REQUEST,
  peopleIn,
  rightsAt,
  type Viewer,
  wordsIn,
} from '@tolvek/core/people';
import { VIEW, type ViewDesign } from '@tolvek/core/view';
import { refused, type Said, said } from '@tolvek/words';
import { asc, eq, isNull, sql } from 'drizzle-orm';
import { changeAtOnce, changeEach, type Done, makeInForce } from '../design/commands.ts';
import type { DesignRow } from '../design/queries.ts';
import { designs } from '../design/tables.ts';
import { targetsFound } from '../desk/share.ts';
import { groupNames, personById, personNamed } from '../people/queries.ts';
import type { Reader, Transaction } from '../platform/database.ts';
import type { House } from '../platform/house.ts';
import { once } from '../platform/idempotency.ts';
import { newId } from '../platform/newId.ts';
import { prepared } from '../platform/prepared.ts';
import { notAllowed, notFound, staleVersion, wrongFields } from '../platform/problem.ts';
import { write } from '../platform/work.ts';
import { allRegisters } from '../register/queries.ts';
import { aroundView, lookedAtBy, nameableIn, naming, saysOf } from './nameable.ts';
import { views } from './tables.ts';
import { lookingAt } from './workedBy.ts';

interface KeptView {
  readonly id: string;
  readonly ownerId: string;
  readonly removedAt: number | null;
  readonly design: DesignRow<ViewDesign>;
}

const COLUMNS = {
  ...{ id: views.id, ownerId: views.ownerId, removedAt: views.removedAt },
  ...{ key: designs.key, draft: designs.draft, version: designs.version, number: designs.number },
};
const all = prepared((db) =>
  db
    .select(COLUMNS)
    .from(views)
    .innerJoin(designs, eq(designs.id, views.id))
    .where(isNull(views.removedAt))
    .orderBy(asc(views.createdAt), asc(views.id))
    .prepare(),
);
const withId = prepared((db) =>
  db
    .select(COLUMNS)
    .from(views)
    .innerJoin(designs, eq(designs.id, views.id))
    .where(eq(views.id, sql.placeholder('id')))
    .prepare(),
);

type Row = ReturnType<ReturnType<typeof all>['all']>[number];

const kept = ({ id, ownerId, removedAt, ...design }: Row): KeptView => ({
  ...{ id, ownerId, removedAt },
  design: { id, ...design } as DesignRow<ViewDesign>,
});

/** Whether somebody finds a view: it is theirs, or for them. */
const finds = ({ ownerId, design }: KeptView, viewer: Viewer): boolean =>
  ownerId === viewer.personId || (design.draft.audience !== null && belongs(design.draft.audience, viewer, NO_REQUEST));

/** Whether somebody sets up all registers that a view looks at. */
function setsUp(db: Reader, viewer: Viewer, { of }: ViewDesign): boolean {
  const registers = allRegisters(db).filter(({ key }) => of.includes(key));
  return registers.length > 0 && registers.every(({ id }) => rightsAt(viewer, id).includes('configure'));
}

/** Whether somebody may change a view: it is theirs, or it is shared and they set up what it looks at. */
const changes = (db: Reader, viewer: Viewer, { ownerId, design: { draft } }: KeptView): boolean =>
  ownerId === viewer.personId || (draft.audience !== null && setsUp(db, viewer, draft));

interface FoundView extends KeptView {
  /** Whether who finds it may change it. */
  readonly mayChange: boolean;
}

/** A view that somebody finds. @throws Problem 404 for every other */
function found(db: Reader, viewer: Viewer, id: string, removed = false): FoundView {
  const row = withId(db).get({ id });
  const view = row && kept(row);
  const mayChange = view !== undefined && changes(db, viewer, view);
  if (!view || !(mayChange || finds(view, viewer)) || (view.removedAt !== null && !(removed && mayChange)))
    throw notFound('view');
  return { ...view, mayChange };
}

/** What the views of somebody and those that are for them are called, the oldest first. */
export const viewsFor = (db: Reader, viewer: Viewer): readonly { readonly id: string; readonly name: string }[] =>
  all(db)
    .all()
    .map(kept)
    .filter((view) => finds(view, viewer))
    .map(({ id, design }) => ({ id, name: design.draft.name }));

/** The views of somebody and those that are for them, the oldest first, and the registers there are to look at. */
export function viewsOf(db: Reader, viewer: Viewer): AnswerOf<'views'> {
  const looking = lookingAt(db, viewer);
  const registers = lookedAtBy(looking);
  const nameable = naming(looking, registers);
  return {
    views: all(db)
      .all()
      .map(kept)
      .filter((view) => finds(view, viewer))
      .map(({ id, ownerId, design: { draft } }) => ({
        ...{ id, name: draft.name, by: ownerId === viewer.personId ? '' : personNamed(db, ownerId) },
        says: saysOf(draft, nameable(draft.of)),
      })),
    registers: registers.map(({ key, name }) => ({ key, name })),
  };
}

/** What a view of some registers can name. */
export function nameableOf(db: Reader, viewer: Viewer, of: string, find: string): AnswerOf<'nameable'> {
  const { registers, fields, closed, vocabularies, known } = nameableIn(
    lookingAt(db, viewer),
    of === '' ? [] : of.split(','),
  );
  const mayExport = ({ id }: (typeof registers)[number]): boolean =>
    rightsAt(viewer, id).some((right) => right.startsWith('export:'));
  return {
    exports: registers.some(mayExport) && !registers.some(({ staysIn }) => staysIn),
    ...{ fields, closed: [...closed], vocabularies: [...vocabularies] },
    stages: (known.stages ?? []).map(({ key, label }) => ({ key, label })),
    forms: [...(known.forms ?? [])],
    ...targetsFound(db, find),
  };
}

export function viewOf(db: Reader, viewer: Viewer, id: string): AnswerOf<'view'> {
  const view = found(db, viewer, id);
  const { draft, version } = view.design;
  return {
    ...{ id, version, view: draft, by: personNamed(db, view.ownerId) },
    ...{ mine: view.ownerId === viewer.personId, changes: view.mayChange },
    names: calledIn(db, [draft.audience]),
  };
}

/** What is wrong with those whom somebody gives something to; `isWide`: whether they may give it beyond groups of theirs. */
export function audienceWrong(db: Reader, viewer: Viewer, audience: Audience, isWide: boolean): readonly Said[] {
  const names = groupNames(db);
  const reachesOut = 'everyone' in audience.in || groupsIn(audience).some((key) => !viewer.groups.includes(key));
  const isUnknown =
    groupsIn(audience).some((key) => !names.has(key)) || peopleIn(audience).some((id) => !personById(db, id));
  return [
    ...(reachesOut && !isWide ? [said('views:notYourGroup')] : []),
    ...(isUnknown ? [said('views:nobodyKnown')] : []),
  ];
}

/** What the groups and people of audiences are called, by their words. */
export function calledIn(db: Reader, audiences: readonly (Audience | null)[]): Readonly<Record<string, string>> {
  const groups = groupNames(db);
  const words = audiences.flatMap((audience) => (audience ? wordsIn(audience) : []));
  return Object.fromEntries(
    words.map((word) => [word, word.startsWith('@') ? personNamed(db, word.slice(1)) : (groups.get(word) ?? word)]),
  );
}

/** @throws Problem 422 for a view that would show nothing, or be found by whom its maker may not give it to */
function refuseUnsound(db: Reader, viewer: Viewer, view: ViewDesign): void {
  const { audience } = view;
  const wrong = VIEW.findings(view, aroundView(nameableIn(lookingAt(db, viewer), view.of))).map(({ at, message }) => ({
    field: at,
    message,
  }));
  const whom = audience ? audienceWrong(db, viewer, audience, setsUp(db, viewer, view)) : [];
  const all = [...wrong, ...whom.map((message) => ({ field: 'audience', message }))];
  if (all.length > 0) throw wrongFields(all.map((each) => ({ ...each, fix: said('views:correctIt') })));
}

/** Keeps a view of somebody. @throws Problem 422 */
export const makeView = (house: House, viewer: Viewer, view: ViewDesign, sentKey: string): AnswerOf<'makeView'> =>
  write(house, ({ tx, now }) =>
    once(tx, { key: sentKey, scope: `view ${viewer.personId}`, content: view, now }, () => {
      refuseUnsound(tx, viewer, view);
      const id = newId();
      makeInForce(tx, VIEW, { id, key: id, content: view, note: '' }, { viewer, now });
      tx.insert(views).values({ id, ownerId: viewer.personId, createdAt: now, removedAt: null }).run();
      return { id };
    }),
  );

/** @throws Problem 403 for who may only look through it */
function refuseOthers(db: Reader, { mayChange, ownerId }: FoundView): void {
  if (!mayChange) throw notAllowed(refused('notYourView', { name: personNamed(db, ownerId) }));
}

/** Changes a view, at once for everybody who finds it. @throws Problem 403, 404, 412, 422 */
export const changeView = (
  house: House,
  viewer: Viewer,
  { id, version, view: content }: { readonly id: string; readonly version: number; readonly view: ViewDesign },
): AnswerOf<'changeView'> =>
  write(house, ({ tx, now }) => {
    const view = found(tx, viewer, id);
    refuseOthers(tx, view);
    if (view.design.version !== version) throw staleVersion();
    refuseUnsound(tx, viewer, content);
    return { version: changeAtOnce(tx, view.design, { version, content, note: '' }, { viewer, now }) };
  });

/** Takes a view away, or puts it back. @throws Problem 403, 404 */
export const removeView = (
  house: House,
  viewer: Viewer,
  { id, removed }: { readonly id: string; readonly removed: boolean },
): AnswerOf<'removeView'> =>
  write(house, ({ tx, now }) => {
    refuseOthers(tx, found(tx, viewer, id, true));
    tx.update(views)
      .set({ removedAt: removed ? now : null })
      .where(eq(views.id, id))
      .run();
    return { id };
  });

/** What one record of a person owns is the other’s, and what was for one is for the other. */
export function viewsAsOther(tx: Transaction, from: string, to: string, note: string, done: Done): void {
  tx.update(views).set({ ownerId: to }).where(eq(views.ownerId, from)).run();
  const words = { [`@${from}`]: `@${to}` };
  const asOther = (view: ViewDesign): ViewDesign =>
    view.audience ? { ...view, audience: inPlace(view.audience, words) } : view;
  changeEach(tx, VIEW, asOther, note, done);
}

/** The views of somebody that others find too are whose takes over; nobody’s are theirs alone. */
export function handOnViews(tx: Transaction, from: string, to: string): void {
  const shared = all(tx)
    .all()
    .map(kept)
    .filter(({ ownerId, design }) => ownerId === from && design.draft.audience !== null);
  for (const { id } of shared) tx.update(views).set({ ownerId: to }).where(eq(views.id, id)).run();
}

/** A view that is there still, whoever finds it; null for every other. */
export function viewById(db: Reader, id: string): ViewDesign | null {
  const row = withId(db).get({ id });
  return row && row.removedAt === null ? kept(row).design.draft : null;
}

/** Whether a view is there still. */
export const isViewThere = (db: Reader, id: string): boolean => withId(db).get({ id })?.removedAt === null;
