import type { AnswerOf, viewRoutes } from '@tolvek/contract';
import type { Viewer } from '@tolvek/core/people';
import type { Language } from '@tolvek/words/speech';
import { keptByOthers } from '../door/admission.ts';
import { doorRead, doorsFor } from '../door/queries.ts';
import { releaseInForce } from '../form/queries.ts';
import { admissionOf } from '../intake/admission.ts';
import { begunBy } from '../intake/kept.ts';
import type { Reader } from '../platform/database.ts';
import type { House } from '../platform/house.ts';
import type { Handlers } from '../platform/serve.ts';
import { askedAt } from '../request/askedAt.ts';
import { followed } from '../request/followed.ts';
import { requestByNumber } from '../request/queries.ts';
import { toFillIn } from './asked.ts';
import { givenTo, givenView } from './given.ts';
import { ledgerOf } from './ledger.ts';
import { ownRequests } from './ownRequests.ts';
import { sharedFor } from './sharedResults.ts';
import { requesterViewOf } from './sheet.ts';

/** What people read of what they asked, and where they can ask. */
export function requesterHandlers(
  house: House,
): Pick<Handlers<typeof viewRoutes>, 'frontDesk' | 'follow' | 'given' | 'myRequest'> {
  const { db, clock } = house;

  return {
    frontDesk: ({ viewer, language }) => ({
      forms: formsFor(db, viewer, clock.now(), language),
      toDecide: viewer?.kind === 'staff' ? decisionsFor(db, viewer, clock.now()) : { rows: [], total: 0 },
      given: viewer?.kind === 'contact' ? givenTo(db, viewer, clock.now()) : [],
      toFill: viewer ? toFillIn(db, viewer, clock.now()) : [],
      begun: viewer ? begunBy(db, viewer, clock.now()) : [],
      mine: viewer ? ownRequests(db, viewer, clock.now()) : [],
      shared: viewer
        ? sharedFor(db, viewer, clock.now()).map(({ id, name, by, until }) => ({ id, name, by, until }))
        : [],
    }),

    follow: (call) => {
      const { viewer, request, linkId } = followed(house, call);
      return requesterViewOf(house, { ...viewer, reads: call.language }, request, linkId);
    },

    given: ({ params, viewer, language }) => givenView(db, { ...viewer, reads: language }, params.number, clock.now()),

    myRequest: ({ params, viewer }) => requesterViewOf(house, viewer, requestByNumber(db, params.number)),
  };
}

/** So many decisions are listed before the others are counted. */
const DECISIONS = 5;

/** What waits for the decision of one of the staff, the earliest first. */
function decisionsFor(db: Reader, viewer: Viewer, now: number): AnswerOf<'frontDesk'>['toDecide'] {
  const { rows, total } = ledgerOf(db, viewer, { tray: 'deciding' }, now, DECISIONS);
  return {
    rows: rows.map(({ number, subject, requester, due }) => ({
      ...{ number, subject, requester, due },
      late: due !== null && Date.parse(due) <= now,
    })),
    total,
  };
}

/**
 * The forms somebody can ask with, each once: by the first of its doors that admits them, else by the first that
 * says why not. A form that is meant for others is none of theirs.
 */
function formsFor(db: Reader, viewer: Viewer | null, now: number, reads: Language): AnswerOf<'frontDesk'>['forms'] {
  const forms = new Map<string, AnswerOf<'frontDesk'>['forms'][number]>();
  for (const door of doorsFor(db, viewer?.kind === 'staff' ? 'staff' : 'outside')) {
    const release = releaseInForce(db, door.formId);
    if (!release || keptByOthers(db, door.formId, viewer) !== null) continue;
    const admission = admissionOf(db, doorRead(door, release, reads), viewer, now);
    const listed = forms.get(door.formId);
    if (listed?.refusal === null || (listed && !admission.admitted)) continue;
    if (!admission.admitted && admission.why === 'not-for-you') continue;
    // Called as the edition that is theirs calls it.
    const asking = { kind: door.kind, id: viewer?.personId ?? null, reads };
    const { title, intro, topic = '' } = askedAt(db, release, asking, now).release.design;
    const refusal = admission.admitted ? null : admission.message;
    forms.set(door.formId, { slug: door.slug, title, intro, topic: topic.trim(), refusal });
  }
  return [...forms.values()];
}
