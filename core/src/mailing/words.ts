import { type Said, said, type Words } from '@tolvek/words';
import { audienceInWords } from '../people/index.ts';
import type { About, MailingDesign, Recipients, Reminder } from './mailing.ts';

/** What groups and people, registers, fields and stages are called now. */
export interface MailingNames {
  readonly word: (word: string) => string;
  readonly register: (key: string) => string;
  /** A field of the register it is about. */
  readonly field: (key: string) => string;
  readonly stage: (key: string) => string;
}

function whoInWords(to: Recipients, { word, field }: MailingNames): Words {
  if ('audience' in to) return audienceInWords(to.audience, word);
  if (to.named === '~requester') return said('mailings:itsRequester');
  if (to.named === '~handler') return said('mailings:itsHandler');
  return said('mailings:namedIn', { field: field(to.named) });
}

function stagesInWords(stages: readonly string[], { stage }: MailingNames): readonly Words[] {
  return stages.map(stage);
}

function aboutInWords(about: About, names: MailingNames, isReached: boolean): readonly Said[] {
  if (about.is === 'nothing' || isReached) return [];
  if (about.is === 'each-other') return [said('mailings:aboutOthers')];
  const register = names.register(about.register);
  return about.stages.length === 0
    ? [said('mailings:aboutEach', { register })]
    : [said('mailings:aboutEachAt', { register, stages: stagesInWords(about.stages, names) })];
}

const reminderInWords = ({ days: count, side }: Reminder): Said =>
  count === 0
    ? said('mailings:remindOn')
    : said(side === 'before' ? 'mailings:remindBefore' : 'mailings:remindAfter', { count });

/** What a mailing does, in sentences: to whom, when, about what, by when. */
export function mailingInWords(mailing: MailingDesign, names: MailingNames): readonly Said[] {
  const { to, about, when, dueIn, reminders } = mailing;
  const who = whoInWords(to, names);
  const first =
    when.is === 'by-hand'
      ? said('mailings:goesByHand', { who })
      : when.is === 'every'
        ? said(`mailings:goesEvery.${when.period}`, { who })
        : about.is === 'requests'
          ? said(when.days === 0 ? 'mailings:goesAtOnce' : 'mailings:goesAfter', {
              ...{ who, count: when.days, register: names.register(about.register) },
              stages: stagesInWords(about.stages, names),
            })
          : said('mailings:goesByHand', { who });
  const due =
    dueIn !== null
      ? said('mailings:dueIn', { count: dueIn })
      : when.is === 'every'
        ? said(`mailings:dueByEnd.${when.period}`)
        : said('mailings:dueNever');
  return [
    first,
    ...aboutInWords(about, names, when.is === 'reached'),
    due,
    ...reminders.map(reminderInWords),
    ...(mailing.passesOn ? [said('mailings:mayPassOn')] : []),
  ];
}
