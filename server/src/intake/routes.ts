import { askedForm, askedInWordsOf, lookedAtTogether } from '@tolvek/core/form';
import { admissionOf, keptByOthers } from '../door/admission.ts';
import { doorBySlug } from '../door/queries.ts';
import { registerOfForm } from '../form/queries.ts';
import type { House } from '../platform/house.ts';
import type { Serve } from '../platform/serve.ts';
import { factsFor } from '../request/facts.ts';
import { backToAnswers, checkAnswers, confirm, offersAt, submit, waitingFor } from './commands.ts';
import { keepBehind, keepByLink, keepForStaff, keptBehind, keptBy, namedIn } from './kept.ts';

export function intakeRoutes(serve: Serve, house: House): void {
  const { db, clock } = house;

  serve('door', ({ params, viewer }) => {
    const { door, release } = doorBySlug(db, params.slug);
    const { design } = release;
    const admission = admissionOf(door, viewer, clock.now());
    const requester = door.kind === 'staff' && viewer ? { id: viewer.personId, kind: viewer.kind } : null;
    // The labels and options are called what their register calls them now.
    const fields = askedInWordsOf(design.fields, registerOfForm(db, door.formId).fields);
    const asked = askedForm({ ...design, fields });
    const kept = keptBy(db, door.id, door.kind === 'staff' ? viewer : null);
    const closed = admission.admitted ? keptByOthers(db, door.formId, viewer) : admission.message;
    return {
      slug: door.slug,
      kind: door.kind,
      title: design.title,
      refusal: closed,
      form:
        closed === null
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
              facts: factsFor(db, { door, design, requester, now: clock.now(), fields: asked.fields }),
            }
          : null,
    };
  });

  serve('checkAnswers', ({ params, body, viewer }) => ({
    problems: [...checkAnswers(db, viewer, params.slug, body.answers, clock.now())],
  }));
  serve('offers', ({ params, body, viewer }) => offersAt(db, viewer, params.slug, body, clock.now()));
  serve('keepAnswers', ({ params, body, viewer }) => keepForStaff(house, viewer, params.slug, body));
  serve('sendKept', ({ params, body }) => keepByLink(house, params.slug, body));
  serve('kept', ({ params }) => keptBehind(db, params.token, clock.now()));
  serve('keepKept', ({ params, body }) => keepBehind(house, params.token, body));
  serve('submit', ({ params, body, viewer, key }) => submit(house, viewer, { slug: params.slug, ...body, key }));

  serve('confirmation', ({ params }) => {
    const { submission, release } = waitingFor(db, params.token, clock.now());
    return { form: release.design.title, name: submission.name, email: submission.email };
  });
  serve('backToAnswers', ({ params }) => backToAnswers(house, params.token));
  serve('confirm', ({ params }) => confirm(house, params.token));
}
