import type { sharedRoutes } from '@tolvek/contract';
import { STRANGER } from '@tolvek/core/people';
import { changeShared, endShared, shareResult } from '../desk/sharedResults.ts';
import type { Reader } from '../platform/database.ts';
import type { House } from '../platform/house.ts';
import { openLink } from '../platform/links.ts';
import { settleReads } from '../platform/reads.ts';
import type { Handlers } from '../platform/serve.ts';
import { inTurns } from '../platform/turns.ts';
import { sharedById } from '../request/sharedResults.ts';
import { sendSheet } from './files.ts';
import { linkedPage, lookAtShared, sharableOf, sharedLines, sharedList, sharedPage } from './sharedResults.ts';
import { noteTakenOut } from './takenOut.ts';

/** What is shared of requests, by whom and with whom. */
export function sharedHandlers(house: House): Handlers<typeof sharedRoutes> {
  const { db, clock, config } = house;
  const byLink = (reader: Reader, token: string) =>
    sharedById(reader, openLink(reader, token, 'shared', clock.now()).targetId);
  return {
    sharedResults: ({ viewer }) => sharedList(db, config.secret, viewer, clock.now()),
    sharable: ({ viewer, params, query }) => sharableOf(db, viewer, params.key, query.find),
    lookAtShared: ({ viewer, body, language }) => lookAtShared(db, viewer, body, language),
    shareResult: ({ viewer, body, key }) => shareResult(house, viewer, body, key),
    changeShared: ({ viewer, params, body }) => changeShared(house, viewer, params.id, body),
    endShared: ({ viewer, params }) => endShared(house, viewer, params.id),
    sharedResult: ({ viewer, params, query, language: reads }) =>
      sharedPage(db, viewer, params.id, { ...query, reads }, clock.now()),
    sharedByLink: ({ params, query, language: reads }) =>
      linkedPage(db, params.token, { ...query, reads }, clock.now()),
    sharedFile: async ({ viewer: reader, params, language: reads, response }) => {
      const row = sharedById(db, params.id);
      const lines = () => sharedLines(db, row, { reader, reads, isLink: false }, clock.now());
      await sendLines(house, lines, { response, row, by: reader.personId });
    },
    sharedFileByLink: async ({ params, language: reads, response }) => {
      const row = byLink(db, params.token);
      const lines = () => sharedLines(db, row, { reader: STRANGER, reads, isLink: true }, clock.now());
      await sendLines(house, lines, { response, row, by: '' });
    },
  };
}

/** Sends lines as a file. All of it is gone through once before: whose reading is noted is written down first. */
async function sendLines(
  house: House,
  lines: () => Generator<readonly string[]>,
  { response, row, by }: { response: Parameters<typeof sendSheet>[0]; row: ReturnType<typeof sharedById>; by: string },
): Promise<void> {
  for await (const _ of inTurns(lines()));
  await settleReads(house);
  if (row) await noteTakenOut(house, by, [{ id: row.registerId }], { what: row.name, as: 'csv' });
  await sendSheet(response, 'shared.csv', inTurns(lines()));
}
