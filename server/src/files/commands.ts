import { Readable } from 'node:stream';
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
import { emailFiles, uploads } from './tables.ts';
import { unclaimedFiles } from './unclaimed.ts';

interface Coming {
  readonly field: FilesField;
  readonly name: string;
  readonly body: Readable;
}

interface Upload extends Coming {
  readonly formId: string;
  /** What the caller says it will send; undefined when they don’t. */
  readonly announced: number | undefined;
  /** Who sends, as limits count. */
  readonly fromWhere: string;
}

/** What is known of a file that has come in, however it is kept. */
type Known = Pick<typeof uploads.$inferSelect, 'id' | 'name' | 'media' | 'bytes' | 'sha256' | 'createdAt'>;

/** Takes a file in for a question: as large as the field allows, and of the kind its name says. */
export async function takeFile(house: House, input: Upload): Promise<KnownFile> {
  const { field, formId, fromWhere } = input;
  const most = field.type.mostBytes ?? FILE_LIMITS.bytes;
  // Refused before a byte is read, when it is said beforehand.
  if (input.announced !== undefined && input.announced > most) throw tooLarge(most);
  roomFor(house.db, fromWhere, input.announced ?? 0);
  return takeIn(house, input, (tx, known) => {
    roomFor(tx, fromWhere, known.bytes);
    tx.insert(uploads)
      .values({ ...known, formId, field: field.key, requestId: null, fromWhere })
      .run();
  });
}

/**
 * Takes a file in that came with an email, which no request has yet.
 *
 * @throws Problem 413 or 422 where messages take no such file, 503 where it can’t be kept just now
 */
export const takeWithEmail = (house: House, emailId: string, name: string, content: Buffer): Promise<KnownFile> =>
  takeIn(house, { field: MESSAGE_FILES, name, body: Readable.from([content]) }, (tx, known) => {
    const lying = Number(
      tx
        .select({ bytes: sum(emailFiles.bytes) })
        .from(emailFiles)
        .get()?.bytes ?? 0,
    );
    if (lying + known.bytes > UNCLAIMED_BYTES.all) throw noRoom();
    tx.insert(emailFiles)
      .values({ ...known, emailId })
      .run();
  });

/** Takes in what comes, and looks at what it is. `note` writes down that it is here. */
async function takeIn(
  house: House,
  { field, name: called, body }: Coming,
  note: (tx: Transaction, known: Known) => void,
): Promise<KnownFile> {
  const name = safeName(called);
  const most = field.type.mostBytes ?? FILE_LIMITS.bytes;
  const received = await receive(house.config, body, most).catch((error: unknown) => {
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
    const { bytes, sha256 } = received;
    const known = { id, name, media: media.is, bytes, sha256, createdAt: house.clock.now() };
    const store = () =>
      house.db.transaction(
        (tx) => {
          note(tx, known);
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
  throw noRoom();
}

const noRoom = (): Problem => new Problem(429, 'too-many-files', refused('tooManyFiles'), undefined, 3_600);

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

/** The files that came with an email and that no request has, in the order in which they came. */
export const filesOfEmail = (db: Reader, emailId: string): readonly (typeof emailFiles.$inferSelect)[] =>
  db.select().from(emailFiles).where(eq(emailFiles.emailId, emailId)).orderBy(emailFiles.id).all();

/**
 * Gives the files that came with an email to a request; what it has already it is not given again, as answers bring
 * along what they answer. Returns how they are named where they are kept.
 */
export function giveEmailFiles(
  tx: Transaction,
  emailId: string,
  { id: requestId, formId }: { readonly id: string; readonly formId: string },
): readonly string[] {
  const here = tx.select({ sha256: uploads.sha256 }).from(uploads).where(eq(uploads.requestId, requestId)).all();
  const has = new Set(here.map(({ sha256 }) => sha256));
  const given = filesOfEmail(tx, emailId).filter(({ sha256 }) => !has.has(sha256));
  for (const { emailId: _, ...known } of given)
    tx.insert(uploads)
      .values({ ...known, formId, field: WITH_MESSAGE, requestId, fromWhere: '' })
      .run();
  tx.delete(emailFiles).where(eq(emailFiles.emailId, emailId)).run();
  return given.map(({ id, name }) => `${id}/${name}`);
}

/** Takes away files that came with emails, some at once. Returns how many. */
export function dropEmailFiles(house: Pick<House, 'db' | 'config'>, which: SQL): number {
  const some = house.db.select({ id: emailFiles.id }).from(emailFiles).where(which).limit(AT_ONCE);
  const gone = house.db.delete(emailFiles).where(inArray(emailFiles.id, some)).returning().all();
  for (const { sha256 } of gone) dropUnknown(house, sha256);
  return gone.length;
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
  const isIn = (table: typeof uploads | typeof emailFiles): boolean =>
    db.select({ id: table.id }).from(table).where(eq(table.sha256, sha256)).get() !== undefined;
  if (!isIn(uploads) && !isIn(emailFiles)) dropFile(config, sha256);
}
