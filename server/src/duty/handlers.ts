import type { rosterRoutes } from '@tolvek/contract';
import type { House } from '../platform/house.ts';
import type { Handlers } from '../platform/serve.ts';
import { answerOffer, dutyView, offerDuty } from './own.ts';
import { changeRoster, createRoster, rostersView, rosterView } from './rosters.ts';

export function rosterHandlers(house: House): Handlers<typeof rosterRoutes> {
  const { db, clock } = house;
  return {
    rosters: () => rostersView(db, clock.now()),
    createRoster: ({ viewer, body, key }) => createRoster(house, viewer, body, key),
    roster: ({ params }) => rosterView(db, params.key),
    changeRoster: ({ viewer, params, body, version }) =>
      changeRoster(house, viewer, { key: params.key, version, ...body }),
    duty: ({ viewer }) => dutyView(db, viewer, clock.now()),
    offerDuty: ({ viewer, body, key }) => offerDuty(house, viewer, body, key),
    answerOffer: ({ viewer, params, body }) => answerOffer(house, viewer, params.id, body),
  };
}
