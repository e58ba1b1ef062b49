import type { Viewer } from '@tolvek/core/people';
import type { Request, Response } from 'express';
import type { House } from '../platform/house.ts';
import { addressOf } from '../platform/limits.ts';
import { type FilesField, takeFile } from './commands.ts';

/** Takes the body of a call in as a file for a field, and answers with what it is known by. `fromWhere`: who sends it, as limits count. */
export async function takeBody(
  house: House,
  { viewer, request, response }: { viewer: Viewer | null; request: Request; response: Response },
  to: { formId: string; field: FilesField; name: string },
  fromWhere = viewer ? `person ${viewer.personId}` : addressOf(request),
): Promise<void> {
  const file = await takeFile(house, {
    ...to,
    body: request,
    announced: announcedBy(request),
    fromWhere,
  });
  response.set('Cache-Control', 'no-store').json(file);
}

/** How many bytes a caller says it will send; undefined when it doesn’t. */
function announcedBy(request: Request): number | undefined {
  const length = request.get('Content-Length');
  return length === undefined ? undefined : Number(length);
}
