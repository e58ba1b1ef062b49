import type { viewRoutes } from '@tolvek/contract';
import { may } from '@tolvek/core/people';
import { changedBy } from '../desk/changing.ts';
import { openDecision } from '../desk/decide.ts';
import { openByLink } from '../desk/proposals.ts';
import { emailsHeld } from '../incoming/queries.ts';
import { lettersLeft, programsFailed, textsFailed } from '../notice/failed.ts';
import { openedHere } from '../platform/device.ts';
import type { House } from '../platform/house.ts';
import type { Handlers } from '../platform/serve.ts';
import { troublesIn } from '../platform/troubles.ts';
import { decisionsAlike } from './alike.ts';
import { courseView } from './course.ts';
import { fileHandlers } from './files.ts';
import { ledgerOf, traysOf } from './ledger.ts';
import { proposalViewOf } from './proposals.ts';
import { requestEmails } from './requestEmails.ts';
import { requesterHandlers } from './requesterHandlers.ts';
import { sentEmails } from './sentEmails.ts';
import { decisionViewOf, sheetOf, sheetOffers } from './sheet.ts';

/** What people read. */
export function viewHandlers(house: House): Handlers<typeof viewRoutes> {
  const { db, clock } = house;
  return {
    trays: ({ viewer }) => ({
      ...traysOf(db, viewer, clock.now()),
      troubles: troublesIn(house),
      failedLetters: may(viewer, 'groundwork') ? lettersLeft(db).failed : 0,
      failedTexts: may(viewer, 'groundwork') ? textsFailed(db) : 0,
      failedPrograms: may(viewer, 'groundwork') ? [...programsFailed(db)] : [],
      heldEmails: may(viewer, 'groundwork') ? emailsHeld(db) : 0,
    }),
    ledger: ({ viewer, query }) => ledgerOf(db, viewer, query, clock.now()),
    decisionsAlike: ({ viewer, params }) => decisionsAlike(db, viewer, params.number),
    sheet: ({ viewer, params }) => sheetOf(db, viewer, params.number, clock.now()),
    requestCourse: ({ viewer, params }) => courseView(db, viewer, params.number, clock.now()),
    requestEmails: ({ viewer, params }) => requestEmails(db, viewer, params.number, house.clock.now()),
    sentEmails: ({ viewer, query }) => sentEmails(db, viewer, query),
    changedBy: ({ viewer, params }) => changedBy(house, viewer, params.number),
    sheetOffers: ({ viewer, params, body }) => sheetOffers(db, viewer, params.number, body, clock.now()),
    // The stream of live updates does not end with an answer.
    live: ({ request, response, session }) => house.live.listen(request, response, session),
    ...fileHandlers(house),
    ...requesterHandlers(house),
    proposalLink: ({ params, ...call }) => {
      openedHere(house, params.token, call);
      const { proposal, request, viewer } = openByLink(db, params.token, clock.now());
      return proposalViewOf(db, viewer, request, proposal.id, clock.now());
    },
    decisionLink: ({ params, ...call }) => {
      openedHere(house, params.token, call);
      const { request, viewer } = openDecision(db, params.token, clock.now());
      return decisionViewOf(db, viewer, request);
    },
  };
}
