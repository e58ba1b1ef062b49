import type { AnswerOf } from '@tolvek/contract';
import type { Viewer } from '@tolvek/core/people';
import { said } from '@tolvek/words';
import { fileTypeFromBuffer } from 'file-type';
import { noteGround } from '../people/history.ts';
import { personById } from '../people/queries.ts';
import type { House } from '../platform/house.ts';
import { LOGO, PICTURE_TYPES, type Picture, putPicture } from '../platform/pictures.ts';
import { notFound, wrongFields } from '../platform/problem.ts';
import { by, write } from '../platform/work.ts';

/** The most a picture may have, bytes: browsers make them small before they send them. */
const MOST = 200 * 1024;

/**
 * Reads a picture that was sent in Base64; null for none.
 *
 * @throws Problem 422 for what is no picture of a kind that browsers show, or too large
 */
async function readPicture(sent: string | null): Promise<Picture | null> {
  if (sent === null) return null;
  const bytes = Buffer.from(sent, 'base64');
  const mime = (await fileTypeFromBuffer(bytes))?.mime;
  const type = PICTURE_TYPES.find((each) => each === mime);
  if (!type || bytes.length > MOST)
    throw wrongFields([
      { field: 'picture', message: said('pictures:notAPicture'), fix: said('pictures:chooseOther', { most: MOST }) },
    ]);
  return { type, bytes };
}

/** Sets the portrait of somebody, or takes it away. @throws Problem 404, 422 for what is no picture */
export async function setPortrait(
  house: House,
  viewer: Viewer,
  id: string,
  sent: string | null,
): Promise<AnswerOf<'setPortrait'>> {
  const picture = await readPicture(sent);
  const version = write(house, (whole) => {
    const work = by(whole, viewer.personId);
    const person = personById(work.tx, id);
    if (!person || person.mergedInto !== null || person.removedAt !== null) throw notFound('person');
    noteGround(work, 'person', id, { kind: 'portrait', on: picture !== null });
    return putPicture(work.tx, id, picture);
  });
  return { version };
}

/** Sets the logo of the desk, or takes it away. @throws Problem 422 for what is no picture */
export async function setLogo(house: House, viewer: Viewer, sent: string | null): Promise<AnswerOf<'setLogo'>> {
  const picture = await readPicture(sent);
  const version = write(house, (whole) => {
    const work = by(whole, viewer.personId);
    noteGround(work, 'desk', 'logo', { kind: 'logo', on: picture !== null });
    return putPicture(work.tx, LOGO, picture);
  });
  return { version };
}
