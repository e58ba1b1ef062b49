import type { viewRoutes } from '@tolvek/contract';
import { follower, keptByOthers } from '../door/admission.ts';
import { doorsFor } from '../door/queries.ts';
import { releaseInForce } from '../form/queries.ts';
import { admissionOf } from '../intake/admission.ts';
import { begunBy } from '../intake/kept.ts';
import type { House } from '../platform/house.ts';
import type { Handlers } from '../platform/serve.ts';
import { requestById, requestByNumber } from '../request/queries.ts';
import { ownRequests } from './ownRequests.ts';
import { requesterViewOf } from './sheet.ts';

/** What people read of what they asked, and where they can ask. */
export function requesterHandlers(
  house: House,
): Pick<Handlers<typeof viewRoutes>, 'frontDesk' | 'follow' | 'myRequest'> {
  const { db, clock } = house;

  return {
    frontDesk: ({ viewer }) => {
      const kind = viewer ? 'staff' : 'outside';
      return {
        forms: doorsFor(db, kind).flatMap((door) => {
          const release = releaseInForce(db, door.formId);
          if (!release || keptByOthers(db, door.formId, viewer) !== null) return [];
          const admission = admissionOf(db, door, viewer, clock.now());
          // A form that is meant for others is none of theirs.
          if (!admission.admitted && admission.why === 'not-for-you') return [];
          return [
            {
              slug: door.slug,
              title: release.design.title,
              intro: release.design.intro,
              refusal: admission.admitted ? null : admission.message,
            },
          ];
        }),
        begun: viewer ? begunBy(db, viewer) : [],
        mine: viewer ? ownRequests(db, viewer, clock.now()) : [],
      };
    },

    follow: ({ params }) => {
      const { viewer, requestId } = follower(db, params.token, clock.now());
      return requesterViewOf(db, viewer, requestById(db, requestId), clock.now());
    },

    myRequest: ({ params, viewer }) => requesterViewOf(db, viewer, requestByNumber(db, params.number), clock.now()),
  };
}
