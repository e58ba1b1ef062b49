import type { AnswerOf } from '@tolvek/contract';
import { type NoticePlan, noticeIn } from '@tolvek/core/telling';
import { said, type Words } from '@tolvek/words';
import type { notices } from '../notice/tables.ts';
import { iso } from '../platform/clock.ts';

type Told = AnswerOf<'requestEmails'>['emails'][number];
type Notice = typeof notices.$inferSelect;

const KINDS: Readonly<Record<string, Words>> = {
  ...{ received: said('hearing:kind.received'), 'new-link': said('hearing:kind.newLink') },
  ...{ 'new-request': said('hearing:kind.newRequest'), 'approval-asked': said('hearing:kind.approvalAsked') },
  ...{ approved: said('hearing:kind.approved'), refused: said('hearing:kind.refused') },
  ...{ undecided: said('hearing:kind.undecided'), 'nobody-decides': said('hearing:kind.nobodyDecides') },
  ...{ 'nobody-handles': said('hearing:kind.nobodyHandles'), assigned: said('hearing:kind.assigned') },
  ...{ message: said('hearing:kind.message'), returned: said('hearing:kind.returned') },
  ...{ stage: said('hearing:kind.stage'), reminder: said('hearing:kind.reminder') },
  ...{ escalation: said('hearing:kind.escalation'), due: said('hearing:kind.due'), news: said('hearing:kind.news') },
  ...{ proposed: said('hearing:kind.proposed'), proposal: said('hearing:kind.proposal') },
  ...{ confirm: said('hearing:kind.confirm'), 'go-on': said('hearing:kind.goOn'), digest: said('hearing:kind.digest') },
  ...{
    invitation: said('hearing:kind.invitation'),
    test: said('hearing:kind.test'),
    reset: said('hearing:kind.reset'),
    duty: said('hearing:kind.duty'),
    report: said('hearing:kind.report'),
  },
  ...{ 'sign-in': said('hearing:kind.signIn'), 'to-fill-in': said('hearing:kind.toFillIn') },
  ...{ 'passed-on': said('hearing:kind.passedOn'), 'place-free': said('hearing:kind.placeFree') },
};

function stateOf({ state, why, way }: Notice): Told['state'] {
  if (way === 'bell') return 'bell';
  switch (state) {
    case 'waiting':
    case 'sending':
      return 'waiting';
    case 'sent':
    case 'failed':
      return state;
    case 'gathering':
      return 'later';
    case 'gathered':
      return 'together';
    case 'dropped':
      return why === null || why === 'nothing' ? 'settled' : why === 'choice' ? 'unwanted' : why;
  }
}

/** An email as it is listed: to whom, about what, and what became of it. `names`: people by id. */
export function emailTold(
  notice: Notice,
  { plan, names }: { readonly plan: NoticePlan; readonly names: ReadonlyMap<string, string> },
): Told {
  const state = stateOf(notice);
  const { id, personId, toName, toAddress, kind, rule, createdAt, sentAt, nextAttemptAt, lastError } = notice;
  const goes = state === 'sent' ? sentAt : state === 'later' || state === 'waiting' ? nextAttemptAt : null;
  const about = rule === null ? (KINDS[kind] ?? kind) : (noticeIn(plan, rule)?.name ?? said('hearing:kind.rule'));
  return {
    ...{ id, state, person: (personId === null ? '' : names.get(personId)) || toName || toAddress, about },
    ...{ at: iso(createdAt), goes: goes === null ? null : iso(goes) },
    error: state === 'failed' ? lastError : null,
    ...(notice.way === 'text' ? { isText: true } : {}),
  };
}
