import { fieldsNamed, reveal, revealSubject } from '@tolvek/core/access';
import { askedForm, lookedAtTogether } from '@tolvek/core/form';
import type { Viewer } from '@tolvek/core/people';
import { and, desc, eq } from 'drizzle-orm';
import { doors } from '../door/tables.ts';
import { currentRelease } from '../form/queries.ts';
import { forms } from '../form/tables.ts';
import type { Reader } from '../platform/database.ts';
import type { House } from '../platform/house.ts';
import type { Serve } from '../platform/serve.ts';
import { messageFromRequester } from '../register/commands.ts';
import { protectionFor } from '../register/protection.ts';
import { requestById, requestByNumber, SHOWN_COLUMNS, stageOf } from '../register/queries.ts';
import { readOnce } from '../register/readOnce.ts';
import { promiseOf, requesterViewOf } from '../register/sheet.ts';
import { requests } from '../register/tables.ts';
import { admissionOf, follower, keptByOthers } from './admission.ts';
import { checkAnswers, confirm, doorBySlug, offersAt, submit, waitingFor } from './commands.ts';
import { factsFor } from './facts.ts';
import { begunBy, keepBehind, keepByLink, keepForStaff, keptBehind, keptBy, namedIn } from './kept.ts';

export function intakeRoutes(serve: Serve, house: House): void {
  const { db, clock } = house;

  serve('frontDesk', ({ viewer }) => {
    const kind = viewer ? 'staff' : 'outside';
    const offered = db
      .select({ door: doors, form: forms })
      .from(doors)
      .innerJoin(forms, eq(forms.id, doors.formId))
      .where(eq(doors.kind, kind))
      .all();
    return {
      forms: offered.flatMap(({ door, form }) => {
        const release = currentRelease(db, form);
        if (!release || keptByOthers(db, form.id, viewer) !== null) return [];
        const admission = admissionOf(door, viewer, clock.now());
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
  });

  serve('door', ({ params, viewer }) => {
    const { door, release } = doorBySlug(db, params.slug);
    const { design } = release;
    const admission = admissionOf(door, viewer, clock.now());
    const requester = door.kind === 'staff' && viewer ? { id: viewer.personId, kind: viewer.kind } : null;
    const asked = askedForm(design);
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
  serve('confirm', ({ params }) => confirm(house, params.token));

  serve('follow', ({ params }) => {
    const { viewer, requestId } = follower(db, params.token, clock.now());
    return requesterViewOf(db, viewer, requestById(db, requestId), clock.now());
  });
  serve('followMessage', ({ params, body }) => {
    const { viewer, requestId } = follower(db, params.token, clock.now());
    messageFromRequester(house, viewer.personId, requestById(db, requestId)?.number ?? '', body.text);
    return { done: true };
  });

  serve('myRequest', ({ params, viewer }) =>
    requesterViewOf(db, viewer, requestByNumber(db, params.number), clock.now()),
  );
  serve('myMessage', ({ params, body, viewer }) => {
    messageFromRequester(house, viewer.personId, params.number.toUpperCase(), body.text);
    return { done: true };
  });
}

function ownRequests(db: Reader, viewer: Viewer, now: number) {
  const asRequester: Viewer = { ...viewer, kind: 'contact', role: 'member' };
  const shared = readOnce(db);
  return db
    .select(SHOWN_COLUMNS)
    .from(requests)
    .where(and(eq(requests.requesterId, viewer.personId), eq(requests.trial, false)))
    .orderBy(desc(requests.createdAt))
    .limit(100)
    .all()
    .map((request) => {
      const register = shared.register(request.registerId);
      const { design, calendar } = shared.form(request.releaseId);
      const visible = reveal({
        protection: protectionFor(db, register, request),
        only: fieldsNamed(design.subject, register.fields),
        values: request.values,
        viewer: asRequester,
        relation: { isDesk: false, isRequester: true },
        nameOf: shared.nameOf,
      });
      return {
        number: request.number,
        form: design.title,
        subject: revealSubject(design.subject, visible, design.title),
        stage: stageOf(register, request.stage).publicLabel,
        finished: request.phase === 'finished',
        promise: promiseOf(request, calendar.zone, now),
      };
    });
}
