import type { incomingRoutes } from '@tolvek/contract';
import { answerWithFile } from '../files/answer.ts';
import { filesOfEmail } from '../files/commands.ts';
import type { House } from '../platform/house.ts';
import { notFound } from '../platform/problem.ts';
import type { Handlers } from '../platform/serve.ts';
import { askByEmail, formsToEnter } from './ask.ts';
import { emailsIn, emailWith, holdEmail, joinEmail, layEmailAside } from './held.ts';

/** Emails that came to the desk and have no request. */
export function incomingHandlers(house: House): Handlers<typeof incomingRoutes> {
  const { db } = house;
  return {
    incomingEmails: ({ query }) => ({ ...emailsIn(db, query.state), isRead: house.config.mailIn !== null }),
    incomingEmail: ({ viewer, params, language }) => {
      const email = emailWith(db, viewer, params.id);
      const forms = email.state === 'held' ? formsToEnter(db, viewer, house.clock.now(), language) : [];
      return { ...email, forms };
    },
    incomingFile: ({ params, response }) => {
      const file = filesOfEmail(db, params.id).find(({ id }) => id === params.file);
      if (!file) throw notFound('file');
      answerWithFile(house, response, file);
    },
    joinEmail: ({ viewer, params, body }) => joinEmail(house, viewer, { ...params, ...body }),
    layEmailAside: ({ viewer, params }) => layEmailAside(house, viewer, params.id),
    holdEmail: ({ viewer, params }) => holdEmail(house, viewer, params.id),
    askByEmail: ({ viewer, params, body, key }) => askByEmail(house, viewer, { ...params, ...body, key }),
  };
}
