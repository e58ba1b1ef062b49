import { z } from 'zod';
import { routesOf } from '../wire/route.ts';
import { pictureHeads } from './heads.ts';

const withId = z.strictObject({ id: z.string().max(64) });
/** Its version, so that it is asked for once. */
const query = z.strictObject({ v: z.string().max(40).optional() });
/** PNG, JPEG or WebP in Base64, 200 kB at most; null takes it away. */
const body = z.strictObject({ picture: z.base64().max(300_000).nullable() });
const answer = z.object({ version: z.string().nullable() });

/** Pictures of people and of the desk. */
export const pictureRoutes = routesOf(pictureHeads, {
  portrait: { says: 'The portrait of somebody, as its bytes.', params: withId, query, answer: z.string() },
  setPortrait: { says: 'Sets the portrait of somebody.', params: withId, body, answer },
  setOwnPortrait: { says: 'Sets one’s own portrait.', body, answer },
  deskLogo: { says: 'The logo of the desk, as its bytes.', query, answer: z.string() },
  setLogo: { says: 'Sets the logo of the desk.', body, answer },
});
