import { type Said, said, type Words } from '@tolvek/words';
import {
  type DeadlinePlan,
  deadlineName,
  hearerInWords,
  type RingNames,
  ringInWords,
  ruleOf,
} from '../deadline/index.ts';
import { conditionOf } from '../expression/index.ts';
import type { Slot } from './merge.ts';
import { type Departure, type NoticeRule, type NoticeWay, type Occasion, type Recipient, waysOf } from './plan.ts';

/** What the sentences of a notice name, as it is called now. */
export interface NoticeNames extends RecipientNames {
  /** A condition in words. */
  readonly condition: (text: string) => Words;
  readonly deadlines: DeadlinePlan;
}

/** What those who get something are called now. */
export interface RecipientNames extends RingNames {
  readonly program: (key: string) => Words;
}

/** What a text puts in besides fields, in words. */
export const SLOT_WORDS: Readonly<Record<Slot, Said>> = {
  'request.number': said('notices:slotNumber'),
  'request.form': said('notices:slotForm'),
  'request.subject': said('notices:slotSubject'),
  'request.stage': said('notices:slotStage'),
  'request.due': said('notices:slotDue'),
  'request.team': said('notices:slotTeam'),
  'request.handler': said('notices:slotHandler'),
  'request.priority': said('notices:slotPriority'),
  'requester.name': said('notices:slotRequester'),
  'reader.name': said('notices:slotReader'),
  'happened.by': said('notices:slotBy'),
  'happened.text': said('notices:slotText'),
  'group.name': said('notices:slotGroup'),
  'group.count': said('notices:slotCount'),
};

const DECIDED = { approved: 'Approved', refused: 'Refused', either: 'Either' } as const;
const FROM = { requester: 'Requester', desk: 'Desk', either: 'Either' } as const;

/** What a notice is about, as the beginning of a sentence. `when`: its condition, where that is what it waits for. */
export function occasionInWords(on: Occasion, names: NoticeNames, when: string | null = null): Said {
  switch (on.is) {
    case 'changed':
      return on.fields.length === 0
        ? said('notices:on.changed')
        : said('notices:on.changedOne', { fields: on.fields.map(names.field) });
    case 'stage':
      return on.stages.length === 0
        ? said('notices:on.stage')
        : said('notices:on.stageOne', { stages: on.stages.map(names.stage) });
    case 'decided':
      return said(`notices:on.decided${DECIDED[on.as]}`);
    case 'message':
      return said(`notices:on.message${FROM[on.from]}`);
    case 'ring': {
      const rule = ruleOf(names.deadlines, on.deadline);
      const ring = rule?.rings.find(({ key }) => key === on.ring);
      const deadline = rule ? deadlineName(rule) : on.deadline;
      return said('notices:on.ring', { deadline, when: ring ? ringInWords(ring) : on.ring });
    }
    case 'group': {
      const { than } = on;
      const meant = when === null ? said('notices:on.groupAll') : names.condition(when);
      if (on.by === null) return said(`notices:on.${on.counts}`, { than, meant });
      return said(`notices:on.${on.counts}By`, { than, meant, field: names.field(on.by) });
    }
    case 'becomes':
      return when === null
        ? said('notices:on.becomesNothing')
        : said('notices:on.becomes', { condition: names.condition(when) });
    default:
      return said(`notices:on.${on.is}`);
  }
}

export function recipientInWords(to: Recipient, names: RecipientNames): Words {
  if (to === 'followers') return said('notices:followers');
  if (typeof to === 'object' && 'program' in to)
    return said('programs:hearsProgram', { program: names.program(to.program) });
  return hearerInWords(to, names);
}

function departureInWords(goes: Departure): Said {
  if (goes.goes === 'at-once') return said('notices:goes.at-once');
  if (goes.goes === 'gathered') return said('notices:goes.gathered', { count: goes.minutes });
  const { at, days } = goes;
  const all = [...days].sort().join('');
  if (all === '1234567') return said('notices:goes.every', { at });
  if (all === '12345') return said('notices:goes.week', { at });
  return said('notices:goes.digest', { at, days: [...days].sort().map((day) => said(`hearing:day.${dayOf(day)}`)) });
}

const DAYS = ['1', '2', '3', '4', '5', '6', '7'] as const;
const dayOf = (day: number): (typeof DAYS)[number] => DAYS[day - 1] ?? '7';

const isProgram = (to: Recipient): to is { readonly program: string } => typeof to === 'object' && 'program' in to;

function howInWords(ways: readonly NoticeWay[]): Said {
  if (ways.length === 0) return said('notices:how.bell');
  if (ways.length > 1) return said('notices:how.both');
  return said(ways[0] === 'text' ? 'notices:how.text' : 'notices:how.email');
}

/** What a notice does, in sentences: when something happens, to whom, and when it goes. */
export function noticeInWords(rule: NoticeRule, names: NoticeNames): readonly Said[] {
  const when = conditionOf(rule);
  const waits = rule.on.is === 'becomes' || rule.on.is === 'group';
  const on = occasionInWords(rule.on, names, waits ? when : null);
  const programs = rule.to.flatMap((to) => (isProgram(to) ? [names.program(to.program)] : []));
  const who = rule.to.filter((to) => !isProgram(to)).map((to) => recipientInWords(to, names));
  // People get it in some way; a program is told.
  const isTold = who.length === 0 && programs.length > 0;
  const how = isTold ? said('notices:how.told') : howInWords(waysOf(rule));
  const all = isTold ? rule.to.map((to) => recipientInWords(to, names)) : who;
  const first =
    all.length === 0
      ? said('notices:saysNobody', { on, how })
      : when === null || waits
        ? said('notices:says', { on, how, who: all })
        : said('notices:saysWhen', { on, how, condition: names.condition(when), who: all });
  if (isTold) return [first];
  return [
    first,
    departureInWords(rule.goes),
    ...(rule.urgent?.trim() ? [said('notices:goesUrgent', { condition: names.condition(rule.urgent) })] : []),
    ...(programs.length > 0 ? [said('notices:programsToo', { count: programs.length, programs })] : []),
  ];
}
