import type { AnswerOf } from '@tolvek/contract';
import { isLate, MAILING, meansOf } from '@tolvek/core/mailing';
import type { Viewer } from '@tolvek/core/people';
import { sayValue } from '@tolvek/core/register';
import { doorAtAddress } from '../door/queries.ts';
import { formById, type ReleaseRow, releaseInForce } from '../form/queries.ts';
import { aboutOwed } from '../mailing/about.ts';
import {
  aroundMailing,
  type MailingRow,
  mailingById,
  mailingsAbout,
  type OwedRow,
  openFor,
  owedAbout,
} from '../mailing/queries.ts';
import { personNamed } from '../people/queries.ts';
import { iso } from '../platform/clock.ts';
import type { Reader } from '../platform/database.ts';
import { askedAt } from '../request/askedAt.ts';
import { type OpenRequest, openRequest } from '../request/open.ts';
import { requestById } from '../request/queries.ts';

type Asked = AnswerOf<'sheet'>['asked'][number];

/** What was asked about a request by mailings, with the answers as far as the viewer works on them, the newest first. */
export function askedAbout(db: Reader, viewer: Viewer, about: OpenRequest, now: number): Asked[] {
  const requestId = about.request.id;
  const byMailing = new Map<string, OwedRow[]>();
  for (const row of owedAbout(db, requestId)) {
    // Who has it now is listed.
    if (row.state === 'passed') continue;
    const known = byMailing.get(row.mailingId);
    if (known) known.push(row);
    else byMailing.set(row.mailingId, [row]);
  }
  return [...byMailing].flatMap(([id, rows]): Asked[] => {
    const mailing = mailingById(db, id);
    const release = mailing && releaseInForce(db, mailing.formId);
    if (!mailing || !release) return [];
    const { name, counts, to } = mailing.design;
    // Who stands in a field is told to who reads it.
    const isNamed = !('named' in to) || to.named.startsWith('~') || about.readable.has(to.named);
    const answers = new Map<string, OpenRequest>();
    for (const { id: owed, answerId } of rows) {
      const answer = answerId === null ? undefined : requestById(db, answerId);
      const open = answer && openRequest(db, answer, viewer, 'sheet');
      if (open?.relation.isDesk) answers.set(owed, open);
    }
    const latest = counts === 'latest' ? rows.find(({ id: owed }) => answers.has(owed)) : undefined;
    return [
      {
        ...{ name, form: release.design.title },
        rows: rows
          // Where the latest answer counts, those before it are only told of.
          .map((row) => ({
            ...rowOf(db, row, latest && row !== latest ? undefined : answers.get(row.id), now),
            ...(isNamed ? {} : { person: '' }),
          })),
        means: counts === 'mean' ? meansIn([...answers.values()]) : [],
      },
    ];
  });
}

/** The mailings by which somebody who may change a request can ask about it now. */
export const canAsk = (
  db: Reader,
  { request, register }: OpenRequest,
  mayChange: boolean,
): AnswerOf<'sheet'>['asks'] =>
  !mayChange || request.trial
    ? []
    : mailingsAbout(db, register.key).flatMap(({ id, formId, design }) => {
        const form = formById(db, formId);
        const release = releaseInForce(db, formId);
        if (!release || form?.stoppedAt !== null || form.deletedAt !== null) return [];
        return MAILING.findings(design, aroundMailing(db, formId, design)).length > 0
          ? []
          : [{ id, name: design.name, form: release.design.title }];
      });

function rowOf(db: Reader, row: OwedRow, answer: OpenRequest | undefined, now: number): Asked['rows'][number] {
  return {
    person: personNamed(db, row.personId),
    state: isLate(row.state, row.due, now) ? 'late' : row.state,
    sent: iso(row.sentAt),
    due: row.due === null ? null : iso(row.due),
    closed: row.closedAt === null ? null : iso(row.closedAt),
    answer: answer
      ? { number: answer.request.number, values: answer.valuesOf(answer.fields.filter(({ key }) => key !== row.field)) }
      : null,
  };
}

/** What several answers come to on average, by what the viewer may read of each. */
function meansIn(answers: readonly OpenRequest[]): Asked['means'] {
  const [first] = answers;
  // One answer is its own mean.
  if (!first || answers.length < 2) return [];
  const read = answers.map((open) => ({
    values: Object.fromEntries(
      open.values.fields.flatMap(({ key, value }) => (value === null ? [] : [[key, value] as const])),
    ),
  }));
  return meansOf(first.fields, read).map(({ field, count, mean }) => ({
    ...{ label: field.label, count },
    shown: sayValue(field, mean),
  }));
}

/** What a form is called to whom it was sent: as the edition that is theirs calls it. */
function titleFor(
  db: Reader,
  { design }: MailingRow,
  release: ReleaseRow,
  { personId, reads }: Viewer,
  now: number,
): string {
  const kind = doorAtAddress(db, design.door)?.kind ?? 'staff';
  return askedAt(db, release, { kind, id: personId, reads }, now).release.design.title;
}

/** What somebody has to fill in, what is due first. `about`: only what is about one request. */
export const toFillIn = (
  db: Reader,
  viewer: Viewer,
  now: number,
  about: string | null = null,
): AnswerOf<'frontDesk'>['toFill'] =>
  openFor(db, viewer.personId).flatMap((row) => {
    const mailing = about === null || row.aboutRequestId === about ? mailingById(db, row.mailingId) : undefined;
    const release = mailing && releaseInForce(db, mailing.formId);
    if (!mailing || !release) return [];
    return [
      {
        ...{ id: row.id, slug: mailing.design.door, title: titleFor(db, mailing, release, viewer, now) },
        about: aboutOwed(db, row, viewer),
        due: row.due === null ? null : iso(row.due),
        late: isLate(row.state, row.due, now),
        passesOn: viewer.kind === 'staff' && (mailing.design.passesOn ?? false),
      },
    ];
  });
