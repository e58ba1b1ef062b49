import { type Route, routes } from '@tolvek/contract';
import type { Viewer } from '@tolvek/core/people';
import { fileId } from '@tolvek/core/register';
import { eq } from 'drizzle-orm';
import type { Request, Response, Router } from 'express';
import { admissionOf, follower } from '../door/admission.ts';
import { doorBySlug } from '../door/queries.ts';
import { askedFor, type FilesField, takeFile } from '../files/commands.ts';
import { readFileOf } from '../files/store.ts';
import { uploads } from '../files/tables.ts';
import { formByKey } from '../form/queries.ts';
import type { House } from '../platform/house.ts';
import { addressOf, type Limits } from '../platform/limits.ts';
import { notAllowed, notFound, notSignedIn } from '../platform/problem.ts';
import { callerFor } from '../platform/serve.ts';
import { inTurns } from '../platform/turns.ts';
import { openRequest } from '../request/open.ts';
import { type RequestRow, requestById, requestByNumber } from '../request/queries.ts';
import { csvLine, takeOut } from './takeOut.ts';

/**
 * Files come and go as bytes, so their routes are bound by themselves; what they allow is decided
 * as anywhere.
 */
export function fileRoutes(router: Router, house: House, limits: Limits): void {
  router.post(routes.upload.path, async (request, response) => {
    const { viewer = null } = (await callerFor(routes.upload as Route, limits, house, request, response)) ?? {};
    const { slug } = routes.upload.params.parse(request.params);
    const { field, name } = routes.upload.query.parse({ ...request.query });
    const { door, release } = doorBySlug(house.db, slug);
    const admission = admissionOf(door, viewer, house.clock.now());
    if (!admission.admitted) throw notAllowed(admission.message);
    const to = { formId: release.formId, field: askedFor(release.design, field), name, viewer };
    await takeBody(house, request, response, to);
  });

  router.post(routes.draftUpload.path, async (request, response) => {
    const { viewer = null } = (await callerFor(routes.draftUpload as Route, limits, house, request, response)) ?? {};
    const { key } = routes.draftUpload.params.parse(request.params);
    const { field, name } = routes.draftUpload.query.parse({ ...request.query });
    const form = formByKey(house.db, key);
    if (!form) throw notFound('This form');
    const to = { formId: form.id, field: askedFor(form.draft, field), name, viewer };
    await takeBody(house, request, response, to);
  });

  router.post(routes.sheetUpload.path, async (request, response) => {
    const { viewer = null } = (await callerFor(routes.sheetUpload as Route, limits, house, request, response)) ?? {};
    const { number } = routes.sheetUpload.params.parse(request.params);
    const { field, name } = routes.sheetUpload.query.parse({ ...request.query });
    const { formId, file } = fieldToFill(house, viewer, requestByNumber(house.db, number), field);
    await takeBody(house, request, response, { formId, field: file, name, viewer });
  });

  router.get(routes.file.path, async (request, response) => {
    const { viewer = null } = (await callerFor(routes.file as Route, limits, house, request, response)) ?? {};
    const { number, id } = routes.file.params.parse(request.params);
    sendFile(house, viewer, requestByNumber(house.db, number), id, response);
  });

  router.get(routes.takeOut.path, async (request, response) => {
    const { viewer = null } = (await callerFor(routes.takeOut as Route, limits, house, request, response)) ?? {};
    const { key } = routes.takeOut.params.parse(request.params);
    const { among } = routes.takeOut.query.parse({ ...request.query });
    if (!viewer) throw notSignedIn();
    const { head, lines } = takeOut(house.db, viewer, key, among);
    response.set({
      'Content-Type': 'text/csv; charset=utf-8',
      'Content-Disposition': `attachment; filename="${key}.csv"`,
      'Cache-Control': 'private, no-store',
    });
    // Whoever reads slowly is waited for, until they go: nothing piles up here. One listener for all
    // of it: what packs the answer takes listeners, and gives none back.
    let goOn = (): void => undefined;
    for (const event of ['drain', 'close']) response.on(event, () => goOn());
    const isTaken = (words: string): boolean => response.write(words) || response.destroyed;
    response.write(`\uFEFF${csvLine(head)}`);
    for await (const { fixed, cells } of inTurns(lines)) {
      if (response.destroyed) return;
      if (!isTaken(csvLine([...fixed, ...cells]))) await new Promise<void>((done) => (goOn = done));
    }
    response.end();
  });

  router.get(routes.followFile.path, async (request, response) => {
    await callerFor(routes.followFile as Route, limits, house, request, response);
    const { token, id } = routes.followFile.params.parse(request.params);
    const { viewer, requestId } = follower(house.db, token, house.clock.now());
    sendFile(house, viewer, requestById(house.db, requestId), id, response);
  });
}

/** Takes the body of a call in as a file for a field, and answers with what it is known by. */
async function takeBody(
  house: House,
  request: Request,
  response: Response,
  { viewer, ...to }: { formId: string; field: FilesField; name: string; viewer: Viewer | null },
): Promise<void> {
  const file = await takeFile(house, {
    ...to,
    body: request,
    announced: announcedBy(request),
    fromWhere: viewer ? `person ${viewer.personId}` : addressOf(request),
  });
  response.set('Cache-Control', 'no-store').json(file);
}

/** How many bytes a caller says it will send; undefined when it doesn’t. */
function announcedBy(request: Request): number | undefined {
  const length = request.get('Content-Length');
  return length === undefined ? undefined : Number(length);
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
  if (!viewer || !request) throw notFound('This request');
  const { fields, relation, reading } = openRequest(house.db, request, viewer, 'changing');
  const isOpen = relation.isDesk && reading.levelOf(key).level === 'write';
  const file = fields.find((field): field is FilesField => field.key === key && field.type.kind === 'files');
  if (!isOpen || !file) throw notFound('A field for files with this name');
  return { formId: request.formId, file };
}

/** Sends a file to whoever may read the field that names it; for anybody else it does not exist. */
function sendFile(
  house: House,
  viewer: Viewer | null,
  request: RequestRow | undefined,
  id: string,
  response: Response,
): void {
  if (!viewer || !request) throw notFound('This file');
  const { values } = openRequest(house.db, request, viewer, 'sheet');
  const isNamed = values.fields.some(
    (field) => Array.isArray(field.value) && field.value.some((ref) => typeof ref === 'string' && fileId(ref) === id),
  );
  const file = isNamed ? house.db.select().from(uploads).where(eq(uploads.id, id)).get() : undefined;
  if (!file || file.requestId !== request.id) throw notFound('This file');
  response.set({
    'Content-Type': file.media,
    'Content-Length': String(file.bytes),
    'Content-Disposition': `attachment; filename*=UTF-8''${encodeURIComponent(file.name)}`,
    'Content-Security-Policy': "sandbox; default-src 'none'",
    'X-Content-Type-Options': 'nosniff',
    'Cache-Control': 'private, no-store',
  });
  readFileOf(house.config, file.sha256)
    .on('error', () => response.destroy())
    .pipe(response);
}
