import type { AnswerOf, BodyOf } from '@tolvek/contract';
import { readerScope } from '@tolvek/core/access';
import { conditionFindings } from '@tolvek/core/expression';
import { rightsAt, type Viewer, wordsIn } from '@tolvek/core/people';
import { type Problem as FieldProblem, fieldKeyOf } from '@tolvek/core/register';
import { said } from '@tolvek/words';
import { rightMissing } from '../people/grants.ts';
import { groupByKey } from '../people/groups.ts';
import { personById } from '../people/queries.ts';
import { todayAt } from '../people/settle.ts';
import type { Reader, Transaction } from '../platform/database.ts';
import type { House } from '../platform/house.ts';
import { once } from '../platform/idempotency.ts';
import { issueLink, lengthenLink } from '../platform/links.ts';
import { newId } from '../platform/newId.ts';
import { notFound, wrongFields } from '../platform/problem.ts';
import { write } from '../platform/work.ts';
import { type RegisterRow, registerById, registerNamed } from '../register/queries.ts';
import {
  addShared,
  asksHidden,
  changeSharedRow,
  maySharesOf,
  type SharedRow,
  sharableBy,
  sharedById,
} from '../request/sharedResults.ts';
import { knownStanding } from '../request/standing.ts';

type Shared = Omit<BodyOf<'shareResult'>, 'register'>;

/** What keeps something from being shared, each with what it is about. */
function sharingProblems(
  db: Reader,
  viewer: Viewer,
  register: RegisterRow,
  shared: Shared,
  today: string,
): readonly FieldProblem[] {
  const { name, fields, facts, when, audience, until } = shared;
  const allowed = new Set(sharableBy(db, viewer, register).map(({ key }) => key));
  const unread = fields.filter((key) => !allowed.has(key));
  const without = fields.filter((key) => fieldKeyOf(key) !== key && !fields.includes(fieldKeyOf(key)));
  const [unreadable] =
    when === '' ? [] : conditionFindings(when, readerScope(register.fields, knownStanding(db, register)));
  const hidden = unreadable ? [] : asksHidden(db, register, when);
  const words = audience ? wordsIn(audience) : [];
  const gone = words.filter((word) =>
    word.startsWith('@') ? personById(db, word.slice(1))?.active !== true : groupByKey(db, word) === undefined,
  );
  const isNobody = audience !== null && !('everyone' in audience.in) && words.length === 0;
  const problem = (field: string, is: boolean, message: FieldProblem['message'], fix: FieldProblem['fix']) =>
    is ? [{ field, message, fix }] : [];
  return [
    ...problem('name', name.trim() === '', said('shared:noName'), said('shared:nameIt')),
    ...problem('fields', fields.length + facts.length === 0, said('shared:nothing'), said('shared:chooseFields')),
    // What is hidden and what does not exist are refused in the same words.
    ...problem('fields', unread.length + without.length > 0, said('shared:noField'), said('shared:chooseOffered')),
    ...problem('audience', isNobody, said('shared:nobody'), said('shared:chooseWho')),
    ...problem('audience', gone.length > 0, said('shared:goneWho'), said('shared:chooseWho')),
    ...problem('until', until < today, said('shared:over'), said('shared:laterDay')),
    ...problem(
      'when',
      unreadable !== undefined,
      said('shared:unreadable', { message: unreadable?.message ?? '' }),
      said('shared:mendCondition'),
    ),
    ...problem('when', hidden.length > 0, said('shared:asksHidden', { fields: hidden }), said('shared:askOther')),
  ];
}

/** @throws Problem 403 for who may share nothing of the register, 422 with what is wrong. */
function checked(tx: Transaction, viewer: Viewer, register: RegisterRow, shared: Shared, now: number): void {
  if (!maySharesOf(viewer, register)) throw rightMissing(tx, 'share:own');
  const problems = sharingProblems(tx, viewer, register, shared, todayAt(tx, now));
  if (problems.length > 0) throw wrongFields([...problems]);
}

/** A link outlives its last day a little: that is asked of what it leads to. */
const DAYS = 2 * 24 * 3_600_000;
const linkEnds = (until: string): number => Date.parse(`${until}T00:00:00Z`) + DAYS;

/** Lets others read some fields of some requests, until a day. Nobody is written to. */
export function shareResult(
  house: House,
  viewer: Viewer,
  { register: of, ...shared }: BodyOf<'shareResult'>,
  key: string,
): AnswerOf<'shareResult'> {
  return write(house, ({ tx, now }) =>
    once(tx, { key, scope: `share result ${viewer.personId}`, content: { of, shared }, now }, () => {
      const register = registerNamed(tx, of);
      checked(tx, viewer, register, shared, now);
      const id = newId();
      const { linkId } = linked(tx, house, { id, linkId: null, by: viewer.personId }, shared);
      addShared(tx, {
        ...{ id, ...shared, name: shared.name.trim(), registerId: register.id, by: viewer.personId, at: now },
        ...{ endedAt: null, linkId },
      });
      return { id };
    }),
  );
}

/** The link of a shared result: made where it needs one and has none. */
function linked(
  tx: Transaction,
  house: House,
  row: Pick<SharedRow, 'id' | 'linkId' | 'by'>,
  { audience, until }: Shared,
): Pick<SharedRow, 'linkId'> {
  if (audience !== null || row.linkId !== null) return { linkId: row.linkId };
  const { id: linkId } = issueLink(tx, house.config.secret, {
    ...{ purpose: 'shared', personId: row.by, targetId: row.id, expiresAt: linkEnds(until) },
  });
  return { linkId };
}

/** What is shared and not ended, for who may see to it. @throws Problem 404 */
function sharedFor(tx: Transaction, id: string, may: (row: SharedRow) => boolean): SharedRow {
  const row = sharedById(tx, id);
  if (!row || row.endedAt !== null || !may(row)) throw notFound('sharedResult');
  return row;
}

/** Changes what is shared, for whom, until when. */
export function changeShared(
  house: House,
  viewer: Viewer,
  id: string,
  shared: BodyOf<'changeShared'>,
): AnswerOf<'changeShared'> {
  return write(house, ({ tx, now }) => {
    const row = sharedFor(tx, id, ({ by }) => by === viewer.personId);
    checked(tx, viewer, registerById(tx, row.registerId), shared, now);
    const { linkId } = linked(tx, house, row, shared);
    if (linkId !== null) lengthenLink(tx, linkId, linkEnds(shared.until));
    changeSharedRow(tx, id, { ...shared, name: shared.name.trim(), linkId });
    return { id };
  });
}

/** Ends what is shared: who shared it, or whoever may share every request of its register. */
export function endShared(house: House, viewer: Viewer, id: string): AnswerOf<'endShared'> {
  return write(house, ({ tx, now }) => {
    const mayAll = (register: string): boolean => rightsAt(viewer, register).includes('share:all');
    sharedFor(tx, id, ({ by, registerId }) => by === viewer.personId || mayAll(registerId));
    changeSharedRow(tx, id, { endedAt: now });
    return { id };
  });
}
