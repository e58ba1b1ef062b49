import type { viewRoutes } from '@tolvek/contract';
import { own } from '@tolvek/core/own';
import type { Viewer } from '@tolvek/core/people';
import { fileId } from '@tolvek/core/register';
import { eq } from 'drizzle-orm';
import type { Response } from 'express';
import { answerWithFile } from '../files/answer.ts';
import { type FilesField, MESSAGE_FILES } from '../files/commands.ts';
import { sendPreview } from '../files/preview.ts';
import { uploads } from '../files/tables.ts';
import { takeBody } from '../files/takeBody.ts';
import type { House } from '../platform/house.ts';
import { notFound } from '../platform/problem.ts';
import { settleReads } from '../platform/reads.ts';
import type { Handlers } from '../platform/serve.ts';
import { inTurns } from '../platform/turns.ts';
import { followed } from '../request/followed.ts';
import { historyOfRequest } from '../request/history.ts';
import { type OpenRequest, openAtWork, openRequest } from '../request/open.ts';
import { isOwnOf, type RequestRow, requestByNumber } from '../request/queries.ts';
import { noteTakenOut } from './takenOut.ts';
import { csvLine, type SheetLine, takeOut } from './takeOut.ts';

/** What comes and goes as bytes; what is allowed is decided as anywhere. */
export function fileHandlers(
  house: House,
): Pick<
  Handlers<typeof viewRoutes>,
  | 'sheetUpload'
  | 'messageUpload'
  | 'myMessageUpload'
  | 'followMessageUpload'
  | 'file'
  | 'smallFile'
  | 'takeOut'
  | 'followFile'
> {
  const { db } = house;
  return {
    sheetUpload: async (call) => {
      const { field, name } = call.query;
      const { formId, file } = fieldToFill(house, call.viewer, requestByNumber(db, call.params.number), field);
      await takeBody(house, call, { formId, field: file, name });
    },
    messageUpload: async (call) => {
      const open = openAtWork(db, call.viewer, call.params.number, 'changing');
      if (!open.may('change')) throw notFound('request');
      await takeBody(house, call, { formId: open.request.formId, field: MESSAGE_FILES, name: call.query.name });
    },
    myMessageUpload: async (call) => {
      const request = requestByNumber(db, call.params.number);
      if (!request || !isOwnOf(request, call.viewer.personId)) throw notFound('request');
      await takeBody(house, call, { formId: request.formId, field: MESSAGE_FILES, name: call.query.name });
    },
    followMessageUpload: async (call) => {
      const { viewer, request } = followed(house, call);
      const to = { formId: request.formId, field: MESSAGE_FILES, name: call.query.name };
      await takeBody(house, { ...call, viewer }, to);
    },
    file: async ({ viewer, params, response }) =>
      answerWithFile(house, response, await fileFor(house, viewer, requestByNumber(db, params.number), params.id)),
    smallFile: async ({ viewer, params, response }) => {
      const { sha256 } = await fileFor(house, viewer, requestByNumber(db, params.number), params.id);
      await sendPreview(house.config, sha256, response);
    },
    followFile: async (call) => {
      const { viewer, request } = followed(house, call);
      answerWithFile(house, call.response, await fileFor(house, viewer, request, call.params.id));
    },
    takeOut: async ({ viewer, params, query, response }) => {
      const taken = () => takeOut(db, viewer, params.key, query.among);
      const { head, lines, isNoted, register, title } = taken();
      // Whose reading is noted is gone through once before: it is written down before the first line leaves.
      if (isNoted) {
        for await (const _ of inTurns(taken().lines));
        await settleReads(house);
      }
      await noteTakenOut(house, viewer.personId, [register], { what: title, as: 'csv' });
      await sendSheet(response, `${params.key}.csv`, withHead(head, inTurns(lines)));
    },
  };
}

async function* withHead(head: readonly string[], lines: AsyncIterable<SheetLine>): AsyncGenerator<readonly string[]> {
  yield head;
  for await (const { fixed, cells } of lines) yield [...fixed, ...cells];
}

/** Sends lines as a file of comma-separated values, its head first. */
export const sendSheet = (response: Response, name: string, lines: AsyncIterable<readonly string[]>): Promise<void> =>
  sendPieces(response, { name, type: 'text/csv' }, inCsv(lines));

async function* inCsv(lines: AsyncIterable<readonly string[]>): AsyncGenerator<string> {
  yield '\uFEFF';
  for await (const line of lines) yield csvLine(line);
}

/** Sends a file piece by piece. */
export async function sendPieces(
  response: Response,
  { name, type }: { readonly name: string; readonly type: string },
  pieces: AsyncIterable<string>,
): Promise<void> {
  response.set({
    'Content-Type': `${type}; charset=utf-8`,
    'Content-Disposition': `attachment; filename="${name}"`,
    'Cache-Control': 'private, no-store',
  });
  // Whoever reads slowly is waited for, until they go: nothing piles up here. One listener for all
  // of it: what packs the answer takes listeners, and gives none back.
  let goOn = (): void => undefined;
  for (const event of ['drain', 'close']) response.on(event, () => goOn());
  const isTaken = (words: string): boolean => response.write(words) || response.destroyed;
  for await (const piece of pieces) {
    if (response.destroyed) return;
    if (!isTaken(piece)) await new Promise<void>((done) => (goOn = done));
  }
  response.end();
}

/**
 * The field for files of a request that somebody of its desk may change; for anybody else it does
 * not exist.
 */
function fieldToFill(
  house: House,
  viewer: Viewer | null,
  request: RequestRow | undefined,
  key: string,
): { formId: string; file: FilesField } {
  if (!viewer || !request) throw notFound('request');
  const open = openRequest(house.db, request, viewer, 'changing');
  const { fields, relation } = open;
  const isOpen = relation.isDesk && open.mayWrite(key);
  const file = fields.find((field): field is FilesField => field.key === key && field.type.kind === 'files');
  if (!isOpen || !file) throw notFound('field');
  return { formId: request.formId, file };
}

/** Whether a file was sent with a message that whoever looks may read. */
const isInMessage = ({ db }: House, open: OpenRequest, id: string): boolean =>
  historyOfRequest(db, open.request.id).some(
    (entry) => entry.comment?.files?.some((ref) => fileId(ref) === id) === true && open.readsWords(entry),
  );

/** A file, for whoever may read the field or the message that names it; for anybody else it does not exist. */
async function fileFor(
  house: House,
  viewer: Viewer | null,
  request: RequestRow | undefined,
  id: string,
): Promise<typeof uploads.$inferSelect> {
  if (!viewer || !request) throw notFound('file');
  const open = openRequest(house.db, request, viewer, 'sheet');
  const named = open.fields.filter(
    ({ key, type }) => type.kind === 'files' && JSON.stringify(own(request.values, key) ?? null).includes(id),
  );
  const isNamed =
    open
      .valuesOf(named)
      .fields.some(
        (field) =>
          Array.isArray(field.value) && field.value.some((ref) => typeof ref === 'string' && fileId(ref) === id),
      ) || isInMessage(house, open, id);
  const file = isNamed ? house.db.select().from(uploads).where(eq(uploads.id, id)).get() : undefined;
  if (!file || file.requestId !== request.id) throw notFound('file');
  await settleReads(house);
  return file;
}
