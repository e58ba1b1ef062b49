import type { AnswerOf, intakeRoutes } from '@tolvek/contract';
import type { DoorLimit, NotAdmitted } from '@tolvek/core/door';
import {
  type AskedForm,
  askedForm,
  askedInWordsOf,
  type FormDesign,
  inLanguage,
  lookedAtTogether,
  requesterReadBy,
} from '@tolvek/core/form';
import type { Viewer } from '@tolvek/core/people';
import { calledFields, type Field, profileWith, vocabularyIn } from '@tolvek/core/register';
import { refused, said, type Words } from '@tolvek/words';
import { keptByOthers } from '../door/admission.ts';
import { type DoorRow, doorBySlug } from '../door/queries.ts';
import { doneWork, workFor } from '../door/slowWork.ts';
import { askedFor } from '../files/commands.ts';
import { sendPreview } from '../files/preview.ts';
import { takeBody } from '../files/takeBody.ts';
import { registerOfForm } from '../form/queries.ts';
import { personById, personNamed } from '../people/queries.ts';
import { Alike } from '../platform/alike.ts';
import type { Reader } from '../platform/database.ts';
import type { House } from '../platform/house.ts';
import { notAllowed } from '../platform/problem.ts';
import type { Call, Handlers } from '../platform/serve.ts';
import { askedAt } from '../request/askedAt.ts';
import { factsFor } from '../request/facts.ts';
import { requestById } from '../request/queries.ts';
import { deskOf } from '../settings/queries.ts';
import { admissionOf, countedAt, namedAt } from './admission.ts';
import { besideDoor, besideSent } from './besideDoor.ts';
import {
  addsStrangers,
  backToAnswers,
  checkAnswers,
  confirm,
  meantByWaiting,
  offersAt,
  pictureAt,
  sendAgain,
  sentState,
  submit,
  waitingFor,
} from './commands.ts';
import { leadingQuestions, ledFrom } from './elsewhere.ts';
import { refuseFormer } from './formerAddress.ts';
import { keepBehind, keepByLink, keepForStaff, keptBehind, keptBy, namedIn } from './kept.ts';
import { isFullFor, joinLine, lineAt, placeShown, quitLine } from './line.ts';
import { openedAt, openedSince } from './opened.ts';
import { isEntrySent, type SentTo, sentTo } from './sentTo.ts';
import { updatesAt } from './theirs.ts';

/** Why somebody can’t ask by a door, in words and as a code; or until when they can, where it is closed. */
function refusedAt(db: Reader, door: DoorRow, viewer: Viewer | null, { now, since, counted, sent }: Coming): Found {
  if (sent && sent.owed.state !== 'open')
    return { refused: { message: refused('owedClosed').happened, why: 'owed-closed' }, finishBy: null };
  const admission = admissionOf(db, door, viewer, now, since, counted, sent ? true : undefined);
  if (!admission.admitted) return { refused: admission, finishBy: null };
  const { finishBy } = admission;
  const kept = keptByOthers(db, door.formId, viewer, isEntrySent(sent));
  return { refused: kept && { message: kept.happened, why: 'kept-by-others' }, finishBy };
}

interface Coming {
  readonly now: number;
  readonly since: number | null;
  readonly counted: ReturnType<typeof countedAt>;
  readonly sent: SentTo | null;
}

interface Found {
  readonly refused: {
    readonly message: Words;
    readonly why: NotAdmitted | 'kept-by-others' | 'owed-closed';
    /** The limit of each person that is reached. */
    readonly own?: DoorLimit;
  } | null;
  /** Until when they may still send, epoch ms, where it is closed. */
  readonly finishBy: number | null;
}

interface Shown {
  readonly fields: readonly Field[];
  readonly asked: AskedForm;
  /** Whether anything of it asks who its requester is: else their groups stay in the house. */
  readonly asksOfRequester: boolean;
}

/** What of a form is shown, by its design: the same for everybody who is given it, until its register changes. */
const shown = new WeakMap<FormDesign, Shown>();

/** What somebody is asked by a form, its labels and options called as its register calls them now. */
function shownOf(design: FormDesign, owned: readonly Field[], isTranslated: boolean): Shown {
  const known = shown.get(design);
  if (known?.fields === owned) return known;
  const fields = isTranslated ? design.fields : calledFields(askedInWordsOf(design.fields, owned));
  const asked = askedForm({ ...design, fields });
  const made = { fields: owned, asked, asksOfRequester: /\brequester\b/.test(JSON.stringify(asked)) };
  shown.set(design, made);
  return made;
}

/** What is theirs is shown to whoever says who they are. */
const SIGN_IN: Found = { refused: { message: said('answers:signInToChange'), why: 'sign-in' }, finishBy: null };

/** As whom somebody asks who is signed in. */
function askerNamed(db: Reader, viewer: Viewer): { readonly name: string; readonly email: string } | null {
  const person = personById(db, viewer.personId);
  return person ? { name: person.name, email: person.email } : null;
}

export function intakeHandlers(house: House): Handlers<typeof intakeRoutes> {
  const { db, clock } = house;
  const { secret } = house.config;
  const alike = new Alike(house);
  const doorFor = ({
    params,
    query,
    viewer: caller,
    session,
    language: reads,
  }: Pick<
    Call<typeof intakeRoutes.door>,
    'params' | 'query' | 'viewer' | 'session' | 'language'
  >): AnswerOf<'door'> => {
    const { door, release } = doorBySlug(db, params.slug, reads);
    const now = clock.now();
    const sent = sentTo(db, door, { owed: query.owed, session }, now);
    const viewer = sent?.viewer ?? caller;
    const known = namedAt(door, viewer);
    // What was typed is given back to whoever signed in.
    const kept = known?.personId === caller?.personId ? keptBy(db, door.id, known, sent?.owed.id) : null;
    const since = openedSince(secret, door, query.opened) ?? kept?.beganAt ?? null;
    const place = placeShown(db, door, query.place, now);
    refuseFormer(door, { since, shows: sent !== null || place !== null });
    const counted = countedAt(db, door, { personId: viewer?.personId ?? null, place }, now);
    const addsHere = addsStrangers(door, release);
    const mustSignIn = release.design.updates !== undefined && !known && !(addsHere && query.fresh);
    const { refused, finishBy } = mustSignIn ? SIGN_IN : refusedAt(db, door, viewer, { now, since, counted, sent });
    const requester = known && { id: known.personId, kind: known.kind };
    const asking = { kind: door.kind, id: requester?.id ?? null, about: sent?.about, entry: sent?.entry, reads };
    const askedOf = askedAt(db, release, asking, clock.now());
    const { release: given, spoken, elsewhere } = askedOf;
    const leadsTo = elsewhere && !sent && !refused ? ledFrom(db, door.formId, elsewhere, { viewer, now, reads }) : null;
    const { design } = given;
    const { asked, asksOfRequester } = shownOf(design, registerOfForm(db, door.formId).fields, spoken !== null);
    const facts = factsFor(db, { door, design, requester, now: clock.now(), fields: asked.fields });
    return {
      slug: door.slug,
      kind: door.kind,
      title: design.title,
      spoken: spoken ?? design.written ?? deskOf(db).language,
      refusal: refused?.message ?? null,
      why: refused?.why ?? null,
      addsInstead: mustSignIn && addsHere,
      leadsTo,
      line: lineAt(db, door, { viewer: known, place, now, isFull: isFullFor(refused) }),
      unnamed: door.design.unnamed ?? false,
      proves: door.design.proves ?? null,
      ...besideDoor(db, door, known, { now, refused, finishBy, counted, reads }),
      ...(sent ? besideSent(db, sent, spoken) : { sent: null }),
      asks: door.kind === 'outside' && known ? askerNamed(db, known) : null,
      form:
        refused === null && leadsTo === null
          ? {
              intro: design.intro,
              release: release.number,
              opened: openedAt(secret, door, since ?? now),
              consent: door.design.consent ?? null,
              prefills: [...(door.design.prefills ?? [])],
              work: (door.design.slowsRobots ?? false) && !viewer,
              fields: asked.fields,
              parts: asked.parts,
              rules: asked.rules,
              kept: kept
                ? {
                    ...{ answers: kept.answers, typedAt: kept.typedAt },
                    opened: kept.beganAt === null ? null : openedAt(secret, door, kept.beganAt),
                    ...namedIn(db, door, requester, kept.answers, clock.now(), sent),
                  }
                : null,
              updates: known && updatesAt(db, { release, design, sent, personId: known.personId }, now),
              leadsBy: sent ? [] : [...leadingQuestions(askedOf)],
              together: lookedAtTogether(design).map((fields) => [...fields]),
              // What is known of somebody goes to their device as far as this form reads it.
              facts: {
                ...facts,
                vocabularies: facts.vocabularies.map((each) => vocabularyIn(each, spoken)),
                profile: profileWith(facts.profile, requesterReadBy(asked)),
                requesterGroups: door.kind === 'staff' || asksOfRequester ? facts.requesterGroups : [],
              },
            }
          : null,
    };
  };

  return {
    door: (call) => {
      const { params, query, session, language } = call;
      // Whoever comes as nobody and shows nothing is answered as all others who do.
      if (session || query.owed || query.opened || query.place) return doorFor(call);
      return alike.answer(JSON.stringify([params.slug, query.fresh ?? null, language]), () => doorFor(call));
    },

    checkAnswers: ({ params, body, viewer, session, language: reads }) =>
      checkAnswers(house, viewer, { ...params, ...body, session, reads }, clock.now()),
    offers: ({ params, body, viewer, session, language: reads }) =>
      offersAt(house, viewer, { ...params, ...body, session, reads }, clock.now()),
    cardPicture: async ({ params, query, viewer, session, language: reads, response }) => {
      const file = pictureAt(house, viewer, { ...params, ...query, session, reads }, clock.now());
      await sendPreview(house.config, file, response);
    },
    keepAnswers: ({ params, body, session }) => keepForStaff(house, session, params.slug, body),
    sendKept: ({ params, body, language }) => keepByLink(house, params.slug, { ...body, language }),
    kept: ({ params }) => keptBehind(house, params.token, clock.now()),
    keepKept: ({ params, body }) => keepBehind(house, params.token, body),
    upload: async (call) => {
      const { door, release } = doorBySlug(db, call.params.slug);
      const since = openedSince(secret, door, call.query.opened);
      const sent = sentTo(db, door, { owed: call.query.owed, session: call.session }, clock.now());
      const viewer = sent?.viewer ?? call.viewer;
      const isSent = sent ? true : undefined;
      const place = placeShown(db, door, call.query.place, clock.now());
      const counted = countedAt(db, door, { personId: viewer?.personId ?? null, place }, clock.now());
      const admission = admissionOf(db, door, viewer, clock.now(), since, counted, isSent);
      if (!admission.admitted) throw notAllowed(refused('notAdmitted', { why: admission.message }));
      const { field, name } = call.query;
      const known = namedAt(door, viewer);
      const asking = { kind: door.kind, id: known?.personId ?? null, about: sent?.about, entry: sent?.entry };
      const { design } = askedAt(db, release, asking, clock.now()).release;
      const fromWhere = door.design.unnamed ? `door ${door.id}` : undefined;
      await takeBody(house, call, { formId: release.formId, field: askedFor(design, field), name }, fromWhere);
    },
    joinLine: ({ params, body, viewer, language: reads }) => joinLine(house, viewer, params.slug, { ...body, reads }),
    leaveLine: ({ params, body, viewer }) => quitLine(house, viewer, params.slug, body),
    work: async ({ params }) => ({ work: await workFor(secret, doorBySlug(db, params.slug).door, clock.now()) }),
    submit: async ({ params, body, viewer, session, key, language }) => {
      // Looked over before the write begins; most doors want none.
      const work =
        body.work === undefined || viewer
          ? null
          : await doneWork(secret, doorBySlug(db, params.slug).door, body.work, clock.now());
      return submit(house, viewer, { slug: params.slug, ...body, work, session, key, language });
    },
    sentState: ({ params, language }) => sentState(db, params.token, clock.now(), language),
    sendAgain: ({ params, body }) => sendAgain(house, params.token, body.email),

    confirmation: ({ params, language }) => {
      const { submission, release } = waitingFor(db, params.token, clock.now());
      const { name, email, requestId } = submission;
      const request = requestId === null ? undefined : requestById(db, requestId);
      const by = personNamed(db, request?.enteredById ?? null) || null;
      const { title: form } = inLanguage(release.design, language);
      const which = meantByWaiting(db, submission, clock.now());
      return { form, name, email, by, arrived: request?.number ?? null, which };
    },
    backToAnswers: ({ params }) => backToAnswers(house, params.token),
    confirm: ({ params, query }) => confirm(house, params.token, query.entry),
  };
}
