import { randomInt } from 'node:crypto';
import type { AnswerOf, BodyOf } from '@tolvek/contract';
import { placeholdersIn } from '@tolvek/core/design';
import {
  canComeByLink,
  DOOR,
  type DoorDesign,
  doorAt,
  doorIn,
  kindOfProof,
  newDoor,
  saysWhose,
} from '@tolvek/core/door';
import { allQuestionsOf } from '@tolvek/core/form';
import { peopleIn, type Viewer, wordsIn } from '@tolvek/core/people';
import type { Stage } from '@tolvek/core/register';
import { said } from '@tolvek/words';
import { LANGUAGES } from '@tolvek/words/speech';
import { and, count, eq, inArray, isNull } from 'drizzle-orm';
import { changeAtOnce, type Done } from '../design/commands.ts';
import { statesOf } from '../design/queries.ts';
import { freeSlug, isSlugTaken, makeDoor, moveDoor } from '../door/commands.ts';
import { lineOf } from '../door/line.ts';
import { allDoors, type DoorRow, doorDesign, formerAddresses } from '../door/queries.ts';
import { doorLines, doors, keptAnswers, waitingSubmissions } from '../door/tables.ts';
import { formById, formNamed, registerOfForm, releaseInForce } from '../form/queries.ts';
import { placesTakenAt } from '../intake/admission.ts';
import { sendByAddress } from '../mailing/commands.ts';
import { wrongConditions } from '../people/conditions.ts';
import { groupNames, namesOf, spokenTo } from '../people/queries.ts';
import { iso } from '../platform/clock.ts';
import type { Reader, Transaction } from '../platform/database.ts';
import { freeName } from '../platform/freeName.ts';
import type { House } from '../platform/house.ts';
import { once, renameScope } from '../platform/idempotency.ts';
import { dropLinks } from '../platform/links.ts';
import { notFound, type Problem, staleVersion, wrongFields } from '../platform/problem.ts';
import { write } from '../platform/work.ts';
import { changeRegister } from '../register/commands.ts';
import { requests } from '../request/tables.ts';
import { wordNames } from './plan.ts';

/** A door as it is listed with its form. */
export const doorSettings = (db: Reader, { slug, kind, design }: DoorRow, now: number): AnswerOf<'setDoor'> => ({
  ...{ slug, kind, name: design.name, open: design.open, closedMessage: design.closedMessage },
  state: doorAt(design, now),
  door: design,
  words: namesAt(db, design).words,
});

/** What is called how that a door names: words of its audience, and people by their ids. */
const namesAt = (db: Reader, { audience }: DoorDesign) => ({
  words: Object.fromEntries([...wordNames(db, [{ audience }])].filter(([word]) => wordsIn(audience).includes(word))),
  people: Object.fromEntries(namesOf(db, peopleIn(audience))),
});

/** A door as it is in force, what counts against its limits, and what was in force before. */
export function doorView(db: Reader, slug: string, now: number): AnswerOf<'doorDesign'> {
  const { door } = doorDesign(db, slug);
  const form = formById(db, door.formId);
  if (!form) throw notFound('formOfDoor');
  const states = statesOf<DoorDesign>(db, { id: door.id });
  const names = namesOf(
    db,
    states.map(({ by }) => by),
  );
  const used = placesTakenAt(db, door, now);
  return {
    ...{ slug, form: form.key, version: door.version, door: door.design, ...namesAt(db, door.design) },
    used: door.design.limits.flatMap((limit) => (limit.of === 'all' ? [{ limit: limit.id, n: used(limit) }] : [])),
    others: allDoors(db).flatMap((other) =>
      other.slug === slug
        ? []
        : [{ slug: other.slug, name: other.design.name, form: formById(db, other.formId)?.draft.title ?? '' }],
    ),
    line: lineOf(db, door.id).map(({ name, email, since, heldUntil }) => ({
      ...{ name, email, since: iso(since), until: heldUntil === null ? null : iso(heldUntil) },
    })),
    former: formerAddresses(db, door.id).map(({ slug: was, leadsOn, endedAt }) => ({
      ...{ slug: was, leadsOn, at: iso(endedAt) },
    })),
    states: states.map(({ number, note, by, at, content }) => ({
      ...{ number, note, by: names.get(by) ?? '', at: iso(at), door: content },
    })),
  };
}

/** What a door names of its form that is not there. */
function namesMissing(tx: Reader, { formId }: DoorRow, door: DoorDesign) {
  const { audience, confirmation, prefills, unnamed, whose } = door;
  const form = formById(tx, formId);
  const released = releaseInForce(tx, formId)?.design;
  const states = [...(form ? [form.draft] : []), ...(released ? [released] : [])];
  const asked = new Set(
    states.flatMap((design) => {
      const fields = new Map(design.fields.map((field) => [field.key, field]));
      return allQuestionsOf(design).flatMap(({ field }) => {
        const found = fields.get(field);
        return found && canComeByLink(found) ? [field] : [];
      });
    }),
  );
  const named = placeholdersIn(confirmation ?? '');
  const known = new Set((released?.fields ?? form?.draft.fields ?? []).map(({ key }) => key));
  const lost = named.filter((field) => !known.has(field));
  return [
    ...wrongConditions(tx, audience, 'audience'),
    ...(unnamed && named.length > 0
      ? [
          {
            field: 'confirmation',
            message: said('doors:unnamedRepeats'),
            fix: said('doors:takeFieldsOut', { fields: named.map((field) => `{${field}}`) }),
          },
        ]
      : []),
    ...(lost.length > 0
      ? [
          {
            field: 'confirmation',
            message: said('workshopErrors:confirmationNames', { fields: lost.map((field) => `{${field}}`) }),
            fix: said('workshopErrors:nameFields'),
          },
        ]
      : []),
    ...(whose === undefined ||
    states.some(({ fields }) => fields.some((field) => field.key === whose && saysWhose(field)))
      ? []
      : [
          {
            field: 'whose',
            message: said('workshopErrors:saysNotWhose'),
            fix: said('workshopErrors:chooseWhose'),
          },
        ]),
    ...(prefills ?? []).flatMap((field) =>
      asked.has(field)
        ? []
        : [
            {
              field: 'prefills',
              message: said('workshopErrors:notAskedFor', { field }),
              fix: said('workshopErrors:chooseQuestions'),
            },
          ],
    ),
  ];
}

/** Gives the register of a door a stage for what is withdrawn, where it has none. */
function placeForWithdrawn(tx: Transaction, { formId }: DoorRow, done: Done): void {
  const { key, stages, holds } = registerOfForm(tx, formId);
  if (holds === 'things' || stages.some(({ role }) => role === 'withdrawn')) return;
  const { say } = spokenTo(tx, done.viewer.personId);
  const label = say('stages:withdrawn');
  const name = freeName('withdrawn', (taken) => stages.some((stage) => stage.key === taken), '_');
  const stage: Stage = { key: name, label, publicLabel: label, phase: 'finished', role: 'withdrawn' };
  changeRegister(tx, { key }, { stages: [...stages, stage] }, say('doors:withdrawingNote'), done);
}

/** Whether two states of a door ask to agree to the same, in whichever language. */
const isSaidAlike = (before: DoorDesign, after: DoorDesign): boolean =>
  before.consent?.text === after.consent?.text &&
  LANGUAGES.every((each) => doorIn(before, each).consent?.text === doorIn(after, each).consent?.text);

/** A door whose text to agree to has the next version where it is another one. */
function withVersion(tx: Reader, door: DoorRow, content: DoorDesign): DoorDesign {
  const { consent } = content;
  if (!consent) return content;
  const before = door.design.consent;
  // It is another text as well where it says something else in another language.
  const isSame = isSaidAlike(door.design, content);
  if (before && isSame) return { ...content, consent: before };
  const used = statesOf<DoorDesign>(tx, { id: door.id }).map(({ content: state }) => state.consent?.version ?? 0);
  return { ...content, consent: { ...consent, version: Math.max(0, before?.version ?? 0, ...used) + 1 } };
}

/**
 * Changes a door, in force at once.
 *
 * @throws Problem 412 when somebody was faster; 422 when nobody could come in by it, when it names a group that
 *   there is not, or when it would prove people in a way of another kind: conditions about what came by it know that.
 */
export function settleDoor(
  house: House,
  viewer: Viewer,
  { slug, version, door: sent, note }: BodyOf<'changeDoor'> & { readonly slug: string; readonly version: number },
): AnswerOf<'changeDoor'> {
  return write(house, ({ tx, now }) => {
    const { door, design } = doorDesign(tx, slug);
    if (design.version !== version) throw staleVersion();
    const content = withVersion(tx, door, sent);
    const groups = groupNames(tx);
    const wrong = [
      ...DOOR.findings(content, null).map(({ at, message }) => ({
        field: at,
        message,
        fix: said('workshopErrors:correctIt'),
      })),
      ...namesMissing(tx, door, content),
      ...(content.instead === undefined || (content.instead !== slug && isSlugTaken(tx, content.instead))
        ? []
        : [
            {
              field: 'instead',
              message: said('workshopErrors:noOtherDoor'),
              fix: said('workshopErrors:chooseOtherDoor'),
            },
          ]),
      ...DOOR.refersTo(content).flatMap(({ kind, key }) =>
        kind !== 'group' || groups.has(key)
          ? []
          : [
              {
                field: 'audience',
                message: said('workshopErrors:noGroupKey', { group: key }),
                fix: said('workshopErrors:chooseGroups'),
              },
            ],
      ),
      ...(kindOfProof(content.proof) === door.kind
        ? []
        : [
            {
              ...{
                field: 'proof',
                message: said('workshopErrors:doorKindStays'),
              },
              fix: said('workshopErrors:addOtherDoor'),
            },
          ]),
    ];
    if (wrong.length > 0) throw wrongFields(wrong);
    if (content.withdraws) placeForWithdrawn(tx, door, { viewer, now });
    return { version: changeAtOnce(tx, design, { version, content, note: note.trim() }, { viewer, now }) };
  });
}

/** Opens or closes a door, and says what people read when it is closed. */
export function setDoor(
  house: House,
  viewer: Viewer,
  { slug, ...set }: BodyOf<'setDoor'> & { readonly slug: string },
): AnswerOf<'setDoor'> {
  return write(house, ({ tx, now }) => {
    const { door, design } = doorDesign(tx, slug);
    const content = { ...design.draft, ...set };
    changeAtOnce(tx, design, { version: design.version, content, note: '' }, { viewer, now });
    return doorSettings(tx, { ...door, design: content }, now);
  });
}

/** Adds a door to a form. */
export function addDoor(
  house: House,
  viewer: Viewer,
  { form: key, once: once_, ...input }: BodyOf<'addDoor'> & { readonly form: string; readonly once: string },
): AnswerOf<'addDoor'> {
  return write(house, ({ tx, now }) =>
    once(tx, { key: once_, scope: `add door ${viewer.personId}`, content: [key, input], now }, () => {
      const form = formNamed(tx, key);
      if (input.slug !== undefined && isSlugTaken(tx, input.slug)) throw addressTaken(input.slug);
      const slug = input.slug ?? freeSlug(tx, form.key);
      const design = newDoor(input.proof, input.name);
      makeDoor(tx, { formId: form.id, slug, design }, { viewer, now });
      return { slug };
    }),
  );
}

/**
 * Gives a door another address: the one that is wished, or one that nobody can guess. Where forms are sent to people by it,
 * they are sent by the new one.
 *
 * @throws Problem 412 when somebody was faster; 422 for an address of another door
 */
export function renewAddress(
  house: House,
  viewer: Viewer,
  {
    slug,
    version,
    slugNow: wished,
    leadsOn,
  }: {
    readonly slug: string;
    readonly version: number;
    readonly slugNow: string | undefined;
    readonly leadsOn: boolean;
  },
): AnswerOf<'moveDoor'> {
  return write(house, ({ tx, now }) => {
    const { door, design } = doorDesign(tx, slug);
    if (design.version !== version) throw staleVersion();
    const isOwn = formerAddresses(tx, door.id).some((former) => former.slug === wished);
    if (wished !== undefined && isSlugTaken(tx, wished) && !isOwn) throw addressTaken(wished);
    const to = wished ?? freeSlug(tx, `${formById(tx, door.formId)?.key ?? slug}-${randomInt(36 ** 9).toString(36)}`);
    moveDoor(tx, door, { to, leadsOn }, { viewer, now });
    sendByAddress(tx, slug, to, { viewer, now });
    renameScope(tx, `submit ${slug} `, `submit ${to} `);
    return { slug: to };
  });
}

const addressTaken = (address: string): Problem =>
  wrongFields([
    {
      ...{ field: 'slug', message: said('workshopErrors:addressTaken', { address }) },
      fix: said('workshopErrors:otherAddress'),
    },
  ]);

/** What came by a door; of what waits to be confirmed, what is no request yet. */
const cameBy = (table: Given | typeof requests, id: string) =>
  and(eq(table.doorId, id), table === waitingSubmissions ? isNull(waitingSubmissions.requestId) : undefined);

const countOf = (db: Reader, table: Given | typeof requests, id: string) =>
  db.select({ n: count() }).from(table).where(cameBy(table, id)).get()?.n ?? 0;

/** What a door has given that would end with it, and what stays. */
export function removalView(db: Reader, slug: string): AnswerOf<'doorRemoval'> {
  const { door } = doorDesign(db, slug);
  return {
    waiting: countOf(db, waitingSubmissions, door.id),
    begun: countOf(db, keptAnswers, door.id),
    requests: countOf(db, requests, door.id),
    line: countOf(db, doorLines, door.id),
  };
}

/**
 * Removes a door: its address leads nowhere any more, and is given to no other. What waits for an address to be
 * confirmed and what was begun is gone, and the links to it end. Requests that came by it stay as they are.
 *
 * @throws Problem 412 when somebody was faster
 */
export function removeDoor(
  house: House,
  viewer: Viewer,
  { slug, version }: { readonly slug: string; readonly version: number },
): AnswerOf<'removeDoor'> {
  return write(house, ({ tx, now }) => {
    const { door, design } = doorDesign(tx, slug);
    if (design.version !== version) throw staleVersion();
    const ended = removalView(tx, slug);
    // The last state of it is closed, so that its history says when it ended; it names nothing any more.
    const { instead: _, ...draft } = design.draft;
    const content = { ...draft, open: false, audience: newDoor(draft.proof, '').audience };
    changeAtOnce(tx, design, { version, content, note: '' }, { viewer, now });
    leadElsewhere(tx, slug, { viewer, now });
    for (const table of [waitingSubmissions, keptAnswers, doorLines]) endGiven(tx, table, door.id);
    tx.update(doors).set({ removedAt: now }).where(eq(doors.id, door.id)).run();
    return ended;
  });
}

/** Doors that send people to one that is gone send them nowhere. */
function leadElsewhere(tx: Transaction, slug: string, done: Done): void {
  for (const other of allDoors(tx)) {
    const { design } = doorDesign(tx, other.slug);
    const { instead, ...content } = design.draft;
    if (instead === slug) changeAtOnce(tx, design, { version: design.version, content, note: '' }, done);
  }
}

/** What a door has given that is not a request: what waits to be confirmed, what was begun, who waits for a place. */
type Given = typeof waitingSubmissions | typeof keptAnswers | typeof doorLines;

/** Ends what somebody has begun or sent by a door that is not a request yet, and the links that lead to it. */
function endGiven(tx: Transaction, table: Given, doorId: string): void {
  const ids = tx
    .select({ id: table.id })
    .from(table)
    .where(cameBy(table, doorId))
    .all()
    .map(({ id }) => id);
  dropLinks(tx, ids);
  tx.delete(table).where(inArray(table.id, ids)).run();
}
