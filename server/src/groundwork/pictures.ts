import type { AnswerOf } from '@tolvek/contract';
import type { Viewer } from '@tolvek/core/people';
import { noteGround } from '../people/history.ts';
import { personById } from '../people/queries.ts';
import type { House } from '../platform/house.ts';
import { LOGO, putPicture, readPicture } from '../platform/pictures.ts';
import { notFound } from '../platform/problem.ts';
import { by, write } from '../platform/work.ts';

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
export async function setLogo(house: House, sent: string | null): Promise<AnswerOf<'setLogo'>> {
  const picture = await readPicture(sent);
  return { version: write(house, ({ tx }) => putPicture(tx, LOGO, picture)) };
}
