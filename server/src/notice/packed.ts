import { deflateRawSync, inflateRawSync } from 'node:zlib';
import { customType } from 'drizzle-orm/sqlite-core';

/**
 * What letters say again and again. It can never change: what was packed by it is unpacked by it. A
 * better one gets the next number, and the old one stays.
 */
const WORDS: Readonly<Record<number, Buffer>> = {
  1: Buffer.from(
    [
      'It should be finished by ","A new request has reached ","It is due ","There is ',
      ' of working time left.","This request was due  and is not finished. Nobody has taken it. has it.',
      '","was approved by ","was not approved by . The reason given:","Your request  is finished.","is now: ',
      'gave you this request.","This request waits for your decision as ","This is what you sent:","Thank you. Your request has the number ',
      '. You hear from us by Mon Tue Wed Thu Fri Jan Feb Mar Apr May Jun Jul Aug Sep Oct Nov Dec 2026, 17:30, 09:00',
      '"],"facts":[{"label":"","shown":"Yes"},{"label":"","shown":"No"},{"label":"","shown":"',
      '"}],"action":{"label":"Read and decide","note":"The link is for you alone, works once, and ends on ',
      '"}],"action":{"label":"Read and answer","note":"","action":{"label":"See the request","note":"',
      '"}],"action":{"label":"Open the request","note":""}},"path":"/floor/all/","link":null}',
      '"}],"action":{"label":"See how it stands","note":""}},"path":"/my/","link":null}',
      '{"letter":{"subject":" · : we have your request","greeting":"Dear ","paragraphs":["',
    ].join(''),
  ),
};
const NEWEST = 1;

/**
 * JSON that is short on disk: a byte that says by which words it was packed, then raw DEFLATE (RFC 1951).
 * Text is read as well: what was stored before it was packed.
 */
export const packedJson = <T>() =>
  customType<{ data: T; driverData: Buffer | string }>({
    dataType: () => 'blob',
    toDriver: (value) => pack(value),
    fromDriver: (stored) => (typeof stored === 'string' ? JSON.parse(stored) : unpack(stored)) as T,
  });

export const pack = (value: unknown): Buffer =>
  Buffer.concat([
    Buffer.of(NEWEST),
    deflateRawSync(JSON.stringify(value), { level: 9, dictionary: WORDS[NEWEST] as Buffer }),
  ]);

/** @throws RangeError for what was packed by words that this release does not know. */
export function unpack(packed: Buffer): unknown {
  const dictionary = WORDS[packed[0] ?? 0];
  if (!dictionary) throw new RangeError(`Packed by words ${packed[0]}, which are not known here.`);
  return JSON.parse(inflateRawSync(packed.subarray(1), { dictionary }).toString('utf8')) as unknown;
}
