import type { Readable } from 'node:stream';
import type { FormDesign } from '@tolvek/core/form';
import { own } from '@tolvek/core/own';
import {
  FILE_LIMITS,
  type Field,
  type Problem as FieldProblem,
  fileId,
  fileObjection,
  type KnownFile,
  mediaByName,
  type RawAnswers,
  type Values,
  WITH_MESSAGE,
} from '@tolvek/core/register';
import { refused, said } from '@tolvek/words';
import { and, eq, inArray, isNull, type SQL, sql, sum } from 'drizzle-orm';
import { fileTypeFromFile } from 'file-type';
import { givenAll } from '../platform/adding.ts';
import type { Reader, Transaction } from '../platform/database.ts';
import type { House } from '../platform/house.ts';
import { AT_ONCE } from '../platform/kept.ts';
import { newId } from '../platform/newId.ts';
import { inWords, patiently } from '../platform/patience.ts';
import { isListed, listed, prepared } from '../platform/prepared.ts';
import { notFound, Problem, wrongFields } from '../platform/problem.ts';
import { dropFile, dropReceived, isText, keepFile, type Received, receive, tooLarge } from './store.ts';
import { uploads } from './tables.ts';
import { unclaimedFiles } from './unclaimed.ts';

interface Upload {
  readonly formId: string;
  readonly field: FilesField;
  readonly name: string;
  readonly body: Readable;
  /** What the caller says it will send; undefined when they don’t. */
  readonly announced: number | undefined;
  /** Who sends, as limits count. */
  readonly fromWhere: string;
}

/** Takes a file in for a question: as large as the field allows, and of the kind its name says. */
export async function takeFile(house: House, input: Upload): Promise<KnownFile> {
  const { field } = input;
  const most = field.type.mostBytes ?? FILE_LIMITS.bytes;
  // Refused before a byte is read, when it is said beforehand.
  if (input.announced !== undefined && input.announced > most) throw tooLarge(most);
  roomFor(house.db, input.fromWhere, input.announced ?? 0);
  const name = safeName(input.name);
  const received = await receive(house.config, input.body, most).catch((error: unknown) => {
    throw inWords(house, error);
  });
  try {
    const media = await mediaOf(received, name);
    const id = newId();
    const file: KnownFile = { ref: `${id}/${name}`, bytes: received.bytes, media: media.is };
    const problem =
      media.problem ??
      (received.bytes === 0
        ? { message: said('answers:fileEmpty', { name }), fix: said('answers:otherFile') }
        : fileObjection(field.type, file));
    if (problem) throw wrongFields([{ field: field.key, ...problem }]);
    roomFor(house.db, input.fromWhere, received.bytes);
    const kept = {
      id,
      formId: input.formId,
      field: field.key,
      name,
      media: media.is,
      bytes: received.bytes,
      sha256: received.sha256,
      createdAt: house.clock.now(),
      requestId: null,
      fromWhere: input.fromWhere,
    };
    const store = () =>
      house.db.transaction(
        (tx) => {
          tx.insert(uploads).values(kept).run();
          keepFile(house.config, received);
        },
        { behavior: 'immediate' },
      );
    await patiently(house, store).catch((error: unknown) => {
      // Kept, and not known of: nobody would ever take it away.
      dropUnknown(house, received.sha256);
      throw error;
    });
    return file;
  } finally {
    dropReceived(received);
  }
}

const MB = 1024 * 1024;
/** How much may lie here that no request has claimed: from one address or person, and in all. */
const UNCLAIMED_BYTES = { each: 100 * MB, all: 1024 * MB } as const;

/** @throws Problem 429 when there is no room for more files that no request claims. */
function roomFor(db: Reader, fromWhere: string, bytes: number): void {
  const lying = (where?: SQL): number =>
    Number(
      db
        .select({ bytes: sum(uploads.bytes) })
        .from(uploads)
        .where(and(isNull(uploads.requestId), where))
        .get()?.bytes ?? 0,
    );
  if (lying(eq(uploads.fromWhere, fromWhere)) + bytes <= UNCLAIMED_BYTES.each && lying() + bytes <= UNCLAIMED_BYTES.all)
    return;
  throw new Problem(429, 'too-many-files', refused('tooManyFiles'), undefined, 3_600);
}

export type FilesField = Field & { readonly type: Extract<Field['type'], { kind: 'files' }> };

/** The question of a form that takes files, by its release or draft. */
export function askedFor({ fields, parts }: Pick<FormDesign, 'fields' | 'parts'>, key: string): FilesField {
  const field = fields.find((each): each is FilesField => each.key === key && each.type.kind === 'files');
  const isAsked = parts.some((part) => part.part === 'question' && part.field === key);
  if (field?.source !== 'asked' || !isAsked) throw notFound('fileQuestion');
  return field;
}

/** A name without a path and without signs that mean something to a file system or a header. */
function safeName(name: string): string {
  const plain = (name.split(/[\\/]/).at(-1) ?? '')
    .normalize('NFC')
    .replace(/[^\p{L}\p{N} ._()-]+/gu, '_')
    .trim()
    .slice(-120);
  return plain.replace(/^\.+/, '') || 'file';
}

/** What a file is by its content, held against what its name says. */
async function mediaOf(
  received: Received,
  name: string,
): Promise<{ is: string; problem: Pick<FieldProblem, 'message' | 'fix'> | null }> {
  const named = mediaByName(name);
  const found = (await fileTypeFromFile(received.path))?.mime;
  if (named?.startsWith('text/') && !found && (await isText(received.path))) return { is: named, problem: null };
  if (named !== undefined && named === found) return { is: named, problem: null };
  const is = found ?? 'application/octet-stream';
  return named === undefined
    ? { is, problem: null }
    : {
        is,
        problem: {
          message: said('answers:fileNotItsName', { name }),
          fix: said('answers:saveFileAgain'),
        },
      };
}

const refsIn = (values: Readonly<Record<string, unknown>>, fields: readonly Field[]): readonly string[] =>
  fields.flatMap((field) => {
    const value = field.type.kind === 'files' ? own(values, field.key) : undefined;
    return Array.isArray(value) ? value.filter((ref) => typeof ref === 'string') : [];
  });

const sentFor = prepared((db) =>
  db
    .select()
    .from(uploads)
    .where(and(isListed(uploads.id, 'ids'), eq(uploads.formId, sql.placeholder('form'))))
    .prepare(),
);
const claiming = prepared((db) =>
  db
    .update(uploads)
    .set(givenAll({ requestId: uploads.requestId }))
    .where(isListed(uploads.id, 'ids'))
    .prepare(),
);

/** The files that answers name and may name: sent for the same form, and not another request’s. */
export function filesNamed(
  db: Reader,
  formId: string,
  fields: readonly Field[],
  answers: RawAnswers | Values,
  requestId: string | null = null,
): readonly KnownFile[] {
  const ids = refsIn(answers, fields).map(fileId).filter(Boolean);
  if (ids.length === 0) return [];
  const rows = sentFor(db).all({ ids: listed(ids.slice(0, 200)), form: formId });
  return rows
    .filter((row) => row.requestId === null || row.requestId === requestId)
    .map((row) => ({ ref: `${row.id}/${row.name}`, bytes: row.bytes, media: row.media }));
}

/** Makes the files that a request names its own. */
export function claimFiles(tx: Transaction, requestId: string, fields: readonly Field[], values: Values): void {
  const ids = refsIn(values, fields).map(fileId);
  if (ids.length > 0) claiming(tx).run({ requestId, ids: listed(ids) });
}

/** What messages take, as a question for files would. */
export const MESSAGE_FILES: FilesField = {
  ...{ key: WITH_MESSAGE, label: '', source: 'asked' as const },
  type: { kind: 'files', only: 'any' },
};

/**
 * Makes files that were sent with a message the request’s own. Returns how they are named where they are kept.
 *
 * @throws Problem 422 where one was not sent for messages of requests by its form, or is in another request
 */
export function claimMessageFiles(
  tx: Transaction,
  { id, formId }: { readonly id: string; readonly formId: string },
  refs: readonly string[],
): readonly string[] {
  if (refs.length === 0) return [];
  const ids = [...new Set(refs.map(fileId))];
  const rows = sentFor(tx).all({ ids: listed(ids), form: formId });
  const mine = rows.filter(({ field, requestId }) => field === WITH_MESSAGE && requestId === null);
  if (mine.length < ids.length)
    throw wrongFields([{ field: 'files', message: said('answers:fileGone'), fix: said('answers:sendFileAgain') }]);
  claiming(tx).run({ requestId: id, ids: listed(ids) });
  return ids.flatMap((each) => mine.flatMap((row) => (row.id === each ? [`${row.id}/${row.name}`] : [])));
}

/** Lets go of the files of requests that are taken away: they are forgotten as if none had named them. */
export const letGoOfFiles = (tx: Transaction, requestIds: readonly string[]): void =>
  void tx
    .update(uploads)
    .set({ requestId: null })
    .where(inArray(uploads.requestId, [...requestIds]))
    .run();

/** Forgets files that no request names and that were sent too long ago. */
export function forgetUnclaimed(house: Pick<House, 'db' | 'config'>, now: number): number {
  const some = house.db.select({ id: uploads.id }).from(uploads).where(unclaimedFiles(now)).limit(AT_ONCE);
  const gone = house.db.delete(uploads).where(inArray(uploads.id, some)).returning({ sha256: uploads.sha256 }).all();
  for (const { sha256 } of gone) dropUnknown(house, sha256);
  return gone.length;
}

/** Takes a file away that no upload is of. */
function dropUnknown({ db, config }: Pick<House, 'db' | 'config'>, sha256: string): void {
  const isKnown = db.select({ id: uploads.id }).from(uploads).where(eq(uploads.sha256, sha256)).get() !== undefined;
  if (!isKnown) dropFile(config, sha256);
}
