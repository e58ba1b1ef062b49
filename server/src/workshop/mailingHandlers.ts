import type { mailingRoutes } from '@tolvek/contract';
import { endOwed, remindNow } from '../desk/mailings.ts';
import { mailingNamed } from '../mailing/queries.ts';
import { apart } from '../platform/apart.ts';
import type { House } from '../platform/house.ts';
import type { Handlers } from '../platform/serve.ts';
import {
  addMailing,
  mailingsView,
  owedView,
  removeMailing,
  sendMailing,
  settleMailing,
  unjoinedView,
} from './mailings.ts';
import { TRY_MAILING } from './tasks.ts';

export function mailingHandlers(house: House): Handlers<typeof mailingRoutes> {
  const { db, clock } = house;
  return {
    mailings: ({ params }) => ({ mailings: [...mailingsView(db, params.key, clock.now())] }),
    addMailing: ({ viewer, params, body, key }) => addMailing(house, viewer, { form: params.key, once: key, ...body }),
    tryMailing: ({ viewer, params, body }) => apart(house, TRY_MAILING, [viewer, params.key, body.mailing]),
    changeMailing: ({ viewer, params, body, version }) =>
      settleMailing(house, viewer, { id: params.id, version, ...body }),
    removeMailing: ({ viewer, params, version }) => removeMailing(house, viewer, { id: params.id, version }),
    sendMailing: ({ viewer, params, body, key }) => sendMailing(house, viewer, { id: params.id, once: key, ...body }),
    owedForms: ({ viewer, params, query }) => owedView(db, viewer, params.id, query, clock.now()),
    remindOwed: ({ params, body }) => {
      mailingNamed(db, params.id);
      return { people: remindNow(house, params.id, body.only) };
    },
    endOwed: ({ params, body }) => {
      mailingNamed(db, params.id);
      return { ended: endOwed(house, params.id, body.forms) };
    },
    unjoined: ({ viewer, params }) => ({ requests: [...unjoinedView(db, viewer, params.id)] }),
  };
}
