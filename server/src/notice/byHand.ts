import { namedInText } from '@tolvek/core/telling';
import { releaseInForce } from '../form/queries.ts';
import type { Reader } from '../platform/database.ts';
import type { OpenRequest } from '../request/open.ts';
import { asking, fieldsRead, type ReadyNotice, readyNotices } from './ready.ts';

/** The notices of a form that somebody who works on a request can send by hand now, ready to be sent. */
export function byHandNow(db: Reader, open: OpenRequest, now: number): readonly ReadyNotice[] {
  const design = releaseInForce(db, open.request.formId)?.design;
  if (!design?.notices || open.request.trial || !open.may('change')) return [];
  const { fields } = design;
  const holds = asking(db, open.request, fields, now);
  // Whether one can be sent tells of what its condition reads.
  return readyNotices(design.notices, fields).filter(
    ({ rule, applies }) =>
      rule.on.is === 'hand' && fieldsRead(rule, fields).every((field) => open.readable.has(field)) && holds(applies),
  );
}

/** The same by their keys and names; `words`: whether what whoever sends it writes stands in it. */
export const sentByHand = (db: Reader, open: OpenRequest, now: number) =>
  byHandNow(db, open, now).map(({ rule: { key, name, text } }) => ({
    ...{ key, name, words: namedInText(text).includes('happened.text') },
  }));
