import type { AnswerOf } from '@tolvek/contract';
import {
  type FormDesign,
  fieldsAsked,
  OWN_REQUESTS,
  type Part,
  stoodIn,
  type Updates as Updates_,
} from '@tolvek/core/form';
import type { Viewer } from '@tolvek/core/people';
import type { Field } from '@tolvek/core/register';
import { filesNamed } from '../files/commands.ts';
import { type ReleaseRow, registerOfForm } from '../form/queries.ts';
import { personById, viewerIn } from '../people/queries.ts';
import { iso } from '../platform/clock.ts';
import type { Reader } from '../platform/database.ts';
import { notFound } from '../platform/problem.ts';
import { openProposals, proposed } from '../proposal/queries.ts';
import { registerById } from '../register/queries.ts';
import { openRequest } from '../request/open.ts';
import { requestsNamed } from '../request/references.ts';
import { openTheirs, type Theirs, theirsOf } from '../request/theirs.ts';
import type { SentTo } from './sentTo.ts';

type Updates = NonNullable<NonNullable<AnswerOf<'door'>['form']>['updates']>;

interface At {
  readonly release: ReleaseRow;
  /** The form as it is asked of them. */
  readonly design: FormDesign;
  readonly sent: SentTo | null;
  readonly personId: string;
}

/**
 * What is theirs that a form would change, of somebody, as far as who looks with their eyes may read it as well. `design`:
 * with a question for each field that a draft may ask.
 *
 * @throws Problem 404 for who is not here
 */
export function theirsSeen(
  db: Reader,
  looker: Viewer,
  { registerId, personId, whose, fields }: Seen,
  now: number,
): AnswerOf<'proofTheirs'>['theirs'] {
  const person = personById(db, personId);
  if (!person?.active) throw notFound('person');
  const viewer = viewerIn(db, person);
  const asked: readonly Part[] = fields.map(({ key: field }) => ({
    part: 'question',
    field,
    asks: '',
    help: '',
    required: false,
  }));
  return theirsOf(db, { whose }, registerById(db, registerId), viewer, null).flatMap(({ open: { request } }) => {
    const itself = openRequest(db, request, looker, 'sheet');
    if (!itself.relation.isDesk) return [];
    return [changeable(db, { fields, parts: asked }, openTheirs(db, request, viewer, itself), personId, now)];
  });
}

interface Seen {
  readonly registerId: string;
  readonly personId: string;
  readonly whose: Updates_['whose'];
  readonly fields: readonly Field[];
}

/** What of theirs a form changes, for whoever fills it in; null for a form that adds. */
export function updatesAt(db: Reader, { release, design, sent, personId }: At, now: number): Updates | null {
  const { updates } = release.design;
  const person = personById(db, personId);
  if (!updates || !person) return null;
  const theirs = theirsOf(db, updates, registerOfForm(db, release.formId), viewerIn(db, person), sent?.entry ?? null);
  return {
    whose: updates.whose === OWN_REQUESTS ? null : updates.whose,
    ...{ by: [...updates.by], adds: updates.none === 'add', beside: updates.beside ?? false },
    ...{ waits: updates.waits ?? false, sent: (sent?.entry ?? null) !== null },
    theirs: theirs.map((one) => changeable(db, design, one, personId, now)),
  };
}

function changeable(
  db: Reader,
  design: Pick<FormDesign, 'fields' | 'parts'>,
  one: Theirs,
  personId: string,
  now: number,
): Updates['theirs'][number] {
  const { open, values, id } = one;
  const { request, subject, fields } = open;
  const asked = fieldsAsked(design.parts);
  const waiting = openProposals(db, id).find((proposal) => proposal.personId === personId);
  const told = waiting && proposed(db, request, waiting, now);
  return {
    ...{ id, number: request.number, subject, stood: stoodIn(design, values) },
    values: open.valuesOf(fields.filter(({ key }) => asked.has(key))),
    files: [...filesNamed(db, request.formId, design.fields, values, request.id)],
    references: [...requestsNamed(db, design.fields, values)],
    waiting: waiting && told ? { at: iso(waiting.at), changes: open.changes(told.changes) } : null,
  };
}
