import type { intakeRoutes } from '@tolvek/contract';
import type { NotAdmitted } from '@tolvek/core/door';
import { type AskedForm, askedForm, askedInWordsOf, lookedAtTogether, requesterReadBy } from '@tolvek/core/form';
import type { Viewer } from '@tolvek/core/people';
import { profileWith } from '@tolvek/core/register';
import { refused, type Words } from '@tolvek/words';
import { keptByOthers } from '../door/admission.ts';
import { type DoorRow, doorBySlug } from '../door/queries.ts';
import { askedFor } from '../files/commands.ts';
import { takeBody } from '../files/takeBody.ts';
import { registerOfForm } from '../form/queries.ts';
import { personById } from '../people/queries.ts';
import type { Reader } from '../platform/database.ts';
import type { House } from '../platform/house.ts';
import { notAllowed } from '../platform/problem.ts';
import type { Handlers } from '../platform/serve.ts';
import { factsFor } from '../request/facts.ts';
import { admissionOf, namedAt } from './admission.ts';
import { askedAt } from './asking.ts';
import {
  backToAnswers,
  checkAnswers,
  confirm,
  offersAt,
  sendAgain,
  sentState,
  submit,
  waitingFor,
} from './commands.ts';
import { keepBehind, keepByLink, keepForStaff, keptBehind, keptBy, namedIn } from './kept.ts';

/** Why somebody can’t ask by a door, in words and as a code; null when they can. */
function refusedAt(
  db: Reader,
  door: DoorRow,
  viewer: Viewer | null,
  now: number,
): { readonly message: Words; readonly why: NotAdmitted | 'kept-by-others' } | null {
  const admission = admissionOf(db, door, viewer, now);
  if (!admission.admitted) return admission;
  const kept = keptByOthers(db, door.formId, viewer);
  return kept === null ? null : { message: kept.happened, why: 'kept-by-others' };
}

/** Whether anything of a form asks who its requester is: else their groups stay in the house. */
const asksOfRequester = (form: AskedForm): boolean => /\brequester\b/.test(JSON.stringify(form));

/** As whom somebody asks who is signed in. */
function askerNamed(db: Reader, viewer: Viewer): { readonly name: string; readonly email: string } | null {
  const person = personById(db, viewer.personId);
  return person ? { name: person.name, email: person.email } : null;
}

export function intakeHandlers(house: House): Handlers<typeof intakeRoutes> {
  const { db, clock } = house;

  return {
    door: ({ params, viewer }) => {
      const { door, release } = doorBySlug(db, params.slug);
      const refused = refusedAt(db, door, viewer, clock.now());
      const known = namedAt(door, viewer);
      const requester = known && { id: known.personId, kind: known.kind };
      const asking = { kind: door.kind, id: requester?.id ?? null };
      const { design } = askedAt(db, release, asking, clock.now()).release;
      // The labels and options are called what their register calls them now.
      const fields = askedInWordsOf(design.fields, registerOfForm(db, door.formId).fields);
      const asked = askedForm({ ...design, fields });
      const kept = keptBy(db, door.id, known);
      const facts = factsFor(db, { door, design, requester, now: clock.now(), fields: asked.fields });
      return {
        slug: door.slug,
        kind: door.kind,
        title: design.title,
        refusal: refused?.message ?? null,
        why: refused?.why ?? null,
        unnamed: door.design.unnamed ?? false,
        asks: door.kind === 'outside' && known ? askerNamed(db, known) : null,
        form:
          refused === null
            ? {
                intro: design.intro,
                release: release.number,
                fields: asked.fields,
                parts: asked.parts,
                rules: asked.rules,
                kept: kept
                  ? {
                      answers: kept.answers,
                      typedAt: kept.typedAt,
                      ...namedIn(db, door, requester, kept.answers, clock.now()),
                    }
                  : null,
                together: lookedAtTogether(design).map((fields) => [...fields]),
                // What is known of somebody goes to their device as far as this form reads it.
                facts: {
                  ...facts,
                  profile: profileWith(facts.profile, requesterReadBy(asked)),
                  requesterGroups: door.kind === 'staff' || asksOfRequester(asked) ? facts.requesterGroups : [],
                },
              }
            : null,
      };
    },

    checkAnswers: ({ params, body, viewer }) => ({
      problems: [...checkAnswers(db, viewer, params.slug, body.answers, clock.now())],
    }),
    offers: ({ params, body, viewer }) => offersAt(db, viewer, params.slug, body, clock.now()),
    keepAnswers: ({ params, body, viewer }) => keepForStaff(house, viewer, params.slug, body),
    sendKept: ({ params, body, language }) => keepByLink(house, params.slug, { ...body, language }),
    kept: ({ params }) => keptBehind(db, params.token, clock.now()),
    keepKept: ({ params, body }) => keepBehind(house, params.token, body),
    upload: async (call) => {
      const { door, release } = doorBySlug(db, call.params.slug);
      const admission = admissionOf(db, door, call.viewer, clock.now());
      if (!admission.admitted) throw notAllowed(refused('notAdmitted', { why: admission.message }));
      const { field, name } = call.query;
      const known = namedAt(door, call.viewer);
      const asking = { kind: door.kind, id: known?.personId ?? null };
      const { design } = askedAt(db, release, asking, clock.now()).release;
      const fromWhere = door.design.unnamed ? `door ${door.id}` : undefined;
      await takeBody(house, call, { formId: release.formId, field: askedFor(design, field), name }, fromWhere);
    },
    submit: ({ params, body, viewer, key, language }) =>
      submit(house, viewer, { slug: params.slug, ...body, key, language }),
    sentState: ({ params }) => sentState(db, params.token, clock.now()),
    sendAgain: ({ params, body }) => sendAgain(house, params.token, body.email),

    confirmation: ({ params }) => {
      const { submission, release } = waitingFor(db, params.token, clock.now());
      return { form: release.design.title, name: submission.name, email: submission.email };
    },
    backToAnswers: ({ params }) => backToAnswers(house, params.token),
    confirm: ({ params }) => confirm(house, params.token),
  };
}
