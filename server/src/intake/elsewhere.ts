import type { AnswerOf } from '@tolvek/contract';
import { namesIn } from '@tolvek/core/expression';
import { type Elsewhere, fieldsAsked, ledByAnswers } from '@tolvek/core/form';
import type { Viewer } from '@tolvek/core/people';
import { hostAllowed, type RawAnswers, type RequestFacts, type Values } from '@tolvek/core/register';
import { refused } from '@tolvek/words';
import type { Language } from '@tolvek/words/speech';
import { keptByOthers } from '../door/admission.ts';
import { type DoorRow, doorBySlug, doorsOf } from '../door/queries.ts';
import { formByKey, type ReleaseRow } from '../form/queries.ts';
import type { Reader } from '../platform/database.ts';
import { Problem } from '../platform/problem.ts';
import { type AskedRelease, askedAt } from '../request/askedAt.ts';
import { factsFor } from '../request/facts.ts';
import { deskOf } from '../settings/queries.ts';
import { admissionOf, namedAt } from './admission.ts';

interface Asker {
  readonly viewer: Viewer | null;
  readonly now: number;
  /** The language they read. */
  readonly reads: Language | undefined;
}

type Led = NonNullable<AnswerOf<'door'>['leadsTo']>;

/** Of the doors of a form in use the first that lets somebody in; undefined where none does. */
function doorFor(db: Reader, formId: string, { viewer, now, reads }: Asker) {
  for (const each of doorsOf(db, formId)) {
    const at = doorBySlug(db, each.slug, reads);
    const isIn = (at.door.kind === 'outside' || viewer !== null) && keptByOthers(db, formId, viewer) === null;
    if (isIn && admissionOf(db, at.door, viewer, now).admitted) return at;
  }
  return undefined;
}

/**
 * Where somebody asks who was given an edition that leads elsewhere, to the end: another form by a door that lets them in, or
 * an address that the desk allows. Null where they ask here: it would lead in a circle, or to what is not there any more.
 */
export function ledFrom(db: Reader, formId: string, elsewhere: Elsewhere, asker: Asker): Led | null {
  const seen = new Set([formId]);
  for (let next: Elsewhere = elsewhere; ; ) {
    if ('address' in next) {
      const host = hostAllowed(next.address, deskOf(db).hosts ?? []);
      return host === null ? null : { to: 'address', address: next.address, host };
    }
    const form = formByKey(db, next.form);
    if (!form?.release || form.deletedAt !== null || seen.has(form.id)) return null;
    seen.add(form.id);
    const at = doorFor(db, form.id, asker);
    if (!at) return { to: 'form', slug: null, title: form.draft.title };
    const given = askedFrom(db, at, asker);
    if (given.elsewhere === null) return { to: 'form', slug: at.door.slug, title: given.release.design.title };
    next = given.elsewhere;
  }
}

const askedFrom = (
  db: Reader,
  { door, release }: { readonly door: DoorRow; readonly release: ReleaseRow },
  { viewer, now, reads }: Asker,
) => askedAt(db, release, { kind: door.kind, id: namedAt(door, viewer)?.personId ?? null, reads }, now);

/** Answers that are complete, at the form that somebody is asked. */
interface Answered {
  readonly asked: AskedRelease;
  readonly values: Values;
  readonly facts: RequestFacts;
}

/** Where answers lead at a door; null where they are asked here. */
export function ledBy(db: Reader, formId: string, { asked, values, facts }: Answered, asker: Asker): Led | null {
  const { leads, release } = asked;
  if (!leads) return null;
  const { design } = release;
  const { holds } = leads.at(values, () => facts);
  const led = ledByAnswers(leads.editions, { fields: design.fields, asked: fieldsAsked(design.parts), holds });
  return led && ledFrom(db, formId, led.elsewhere, asker);
}

/** The questions whose answers may lead elsewhere. */
export function leadingQuestions({ leads, release: { design } }: AskedRelease): readonly string[] {
  const named = new Set(leads?.editions.flatMap(({ when }) => namesIn(when)));
  return [...fieldsAsked(design.parts)].filter((field) => named.has(field));
}

/**
 * Whoever is led elsewhere sends nothing here, by who they are or by what they answer.
 *
 * @throws Problem 409
 */
export function refuseElsewhere(
  db: Reader,
  at: { readonly door: DoorRow; readonly release: ReleaseRow; readonly answers: RawAnswers },
  asker: Asker,
): void {
  const { door, answers } = at;
  const asked = askedFrom(db, at, asker);
  const { elsewhere, leads, release } = asked;
  let led = elsewhere && ledFrom(db, door.formId, elsewhere, asker);
  if (!led && leads) {
    const known = namedAt(door, asker.viewer);
    const requester = known ? { id: known.personId, kind: known.kind } : null;
    const facts = factsFor(db, { door, design: release.design, requester, now: asker.now, named: answers });
    led = ledBy(db, door.formId, { asked, facts, values: asked.complete(answers, facts).values }, asker);
  }
  if (led)
    throw new Problem(409, 'elsewhere', refused('askedElsewhere', { where: led.to === 'form' ? led.title : led.host }));
}
