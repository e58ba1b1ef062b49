import type { NoticeCause } from '@tolvek/core/notice';
import { spokenLetter } from '@tolvek/core/notice';
import { actorOf, eventOf, type ToldEvent } from '@tolvek/core/program';
import { noticeIn, USUAL_NOTICES } from '@tolvek/core/telling';
import { said } from '@tolvek/words';
import { finishOf } from '../deadline/queries.ts';
import { releaseInForce } from '../form/queries.ts';
import { groupNames, personNamed } from '../people/queries.ts';
import { iso } from '../platform/clock.ts';
import type { Reader } from '../platform/database.ts';
import type { House } from '../platform/house.ts';
import { speechFor } from '../platform/words.ts';
import { programByKey, viewerOfKey } from '../program/queries.ts';
import { registerById, stageOf } from '../register/queries.ts';
import { openRequest } from '../request/open.ts';
import { requestById } from '../request/queries.ts';
import { deskOf } from '../settings/queries.ts';
import { letterAbout } from './aboutRequest.ts';
import type { Notice } from './outbox.ts';

/** Why a program is told nothing. */
type Untold = 'off' | 'hidden' | 'nothing';

/**
 * What a program is told as it goes out, as JSON (CloudEvents 1.0): with what it may read now, by the rules that an email to
 * one of the staff follows.
 */
export function eventFor(
  { config }: Pick<House, 'config'>,
  db: Reader,
  { id, program, cause, requestId, createdAt }: Notice,
  now: number,
): { readonly name: string; readonly subject: string; readonly body: string } | Untold {
  const { name, address, retired } = programByKey(db, program ?? '')?.draft ?? { name: '', address: '', retired: true };
  if (retired || address === '') return 'off';
  const speech = speechFor(deskOf(db));
  if (cause?.kind === 'test')
    return { name, ...testFor(config, { id, at: createdAt }, speech.told(said('emails:programTest'))) };
  if (cause?.kind !== 'rule' || requestId === null) return 'nothing';
  const told = toldOf({ config }, db, { program: program ?? '', name, requestId, cause }, now);
  if (typeof told === 'string') return told;
  const event = eventOf({ id, source: config.url, on: told.on, at: createdAt }, told.data);
  return { name, subject: `${told.data.request.number} · ${told.data.notice.name}`, body: JSON.stringify(event) };
}

/** A test tells of no request. */
function testFor({ url }: House['config'], { id, at }: { readonly id: string; readonly at: number }, text: string) {
  const event = {
    ...{ specversion: '1.0', id, source: url, type: 'tolvek.test', time: iso(at), datacontenttype: 'application/json' },
    data: { text },
  };
  return { subject: '', body: JSON.stringify(event) };
}

function toldOf(
  { config }: Pick<House, 'config'>,
  db: Reader,
  about: {
    readonly program: string;
    readonly name: string;
    readonly requestId: string;
    readonly cause: Extract<NoticeCause, { kind: 'rule' }>;
  },
  now: number,
): { readonly on: string; readonly data: ToldEvent } | Untold {
  const { program, name, cause } = about;
  const request = requestById(db, about.requestId);
  const viewer = viewerOfKey(db, program);
  const { notices: plan = USUAL_NOTICES, fields = [] } = (request && releaseInForce(db, request.formId)?.design) ?? {};
  const rule = noticeIn(plan, cause.rule);
  if (!request || !viewer || !rule) return 'nothing';
  const register = registerById(db, request.registerId);
  const open = openRequest(db, request, viewer, 'letter', { register });
  const person = { id: actorOf(program), kind: 'staff', name, email: '', language: null } as const;
  const out = letterAbout(db, { request, person, open, now }, cause, {
    ...{ plan, fields, readsAnswers: false, follows: () => ({ way: null, until: null }) },
  });
  if (out === null || out === 'hidden') return out ?? 'nothing';
  const { zone } = deskOf(db);
  const { told } = speechFor({ language: out.language, zone });
  const { subject, paragraphs } = spokenLetter(out.letter, told);
  const stage = stageOf(register, request.stage);
  const finish = finishOf(db, request.id);
  return {
    on: rule.on.is,
    data: {
      notice: { key: rule.key, name: rule.name },
      request: {
        ...{ number: request.number, subject: told(open.subject), form: open.design.title, register: register.name },
        ...{ stage: stage.label, phase: stage.phase, priority: request.priority },
        team: request.team === null ? null : (groupNames(db).get(request.team) ?? request.team),
        handler: request.handlerId === null ? null : personNamed(db, request.handlerId),
        requester: request.requesterId === null ? null : personNamed(db, request.requesterId),
        ...{ arrived: iso(request.createdAt), due: finish === null ? null : iso(finish) },
        url: `${config.url}/floor/all/${request.number}`,
      },
      happened: { by: personNamed(db, cause.by), text: cause.text },
      words: rule.text.trim() === '' ? null : { subject, text: paragraphs.join('\n\n') },
      answers: rule.answers
        ? open.values.fields.map(({ key: field, label, value, shown }) => ({ field, label, value, text: told(shown) }))
        : null,
    },
  };
}
