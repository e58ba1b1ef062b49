import { allQuestionsOf, type FormDesign } from '@tolvek/core/form';
import { canSay, ITSELF, type MailingDesign, newMailing, type Recipients, type Reminder } from '@tolvek/core/mailing';
import type { Field } from '@tolvek/core/register';

/** What a mailing can be for, as it begins. */
export const STARTS = ['once', 'each-other', 'regularly', 'afterwards', 'keepers'] as const;
export type Start = (typeof STARTS)[number];

/** A register that a form can be about, as far as a mailing asks of it. */
interface Register {
  readonly key: string;
  readonly fields: readonly Field[];
  readonly stages: readonly { readonly key: string }[];
}

/** The questions of a form that say which person it is about. */
export const personQuestions = (form: FormDesign): readonly Field[] =>
  form.fields.filter(({ key }) => canSay(form, key, null));

/** The questions of a form that say which request it is about. */
export const requestQuestions = (form: FormDesign): readonly Field[] => {
  const asked = new Set(allQuestionsOf(form).map(({ field }) => field));
  return form.fields.filter(({ key, type }) => type.kind === 'reference' && asked.has(key));
};

/** The register that a question refers to; undefined where it refers to none. */
export const registerOf = <R extends Register>(field: Field | undefined, registers: readonly R[]): R | undefined => {
  const type = field?.type;
  return type?.kind === 'reference' ? registers.find(({ key }) => key === type.register) : undefined;
};

/** The fields of a register that hold people. */
export const peopleFields = (register: Register | undefined): readonly Field[] =>
  (register?.fields ?? []).filter(({ type }) => type.kind === 'person' || type.kind === 'people');

/** A mailing as it begins; null where the form asks for nothing that it could be about. */
export function startOf(start: Start, { name, door, form, fills, registers }: StartsWith): MailingDesign | null {
  const plain = newMailing(name, door);
  const [person] = personQuestions(form);
  const [request] = requestQuestions(form);
  const register = registerOf(request, registers);
  switch (start) {
    case 'once':
      return plain;
    case 'regularly':
      return { ...plain, when: { is: 'every', period: 'week' }, dueIn: null };
    case 'each-other':
      return person ? { ...plain, about: { is: 'each-other', field: person.key } } : null;
    case 'afterwards': {
      if (!request || !register) return null;
      const stages = register.stages.flatMap(({ key }) => (key === 'done' ? [key] : []));
      return {
        ...plain,
        to: { named: '~requester' },
        about: { is: 'requests', register: register.key, field: request.key, stages, when: '' },
        when: { is: 'reached', days: 1 },
      };
    }
    case 'keepers': {
      const own = form.updates && registers.find(({ key }) => key === fills);
      if (form.updates && own)
        return {
          ...plain,
          to: { named: form.updates.whose },
          about: { is: 'requests', register: own.key, field: ITSELF, stages: [], when: '' },
          when: { is: 'every', period: 'year' },
          dueIn: 15,
        };
      const [keeper] = peopleFields(register);
      if (!request || !register) return null;
      return {
        ...plain,
        to: { named: keeper?.key ?? '~requester' },
        about: { is: 'requests', register: register.key, field: request.key, stages: [], when: '' },
        when: { is: 'every', period: 'year' },
        dueIn: 15,
      };
    }
  }
}

interface StartsWith {
  readonly name: string;
  /** The slug of the door by which the answers come in. */
  readonly door: string;
  readonly form: FormDesign;
  /** The register that the form fills, by key. */
  readonly fills: string;
  readonly registers: readonly Register[];
}

/** A mailing with a reminder more, on a day on which no other is. */
export function withReminder(mailing: MailingDesign): MailingDesign {
  const { reminders } = mailing;
  let days = 1;
  while (reminders.some((each) => each.side === 'before' && each.days === days)) days += 1;
  return { ...mailing, reminders: [...reminders, { days, side: 'before' }] };
}

export const changeReminder = (mailing: MailingDesign, at: number, change: Partial<Reminder>): MailingDesign => ({
  ...mailing,
  reminders: mailing.reminders.map((each, place) => (place === at ? { ...each, ...change } : each)),
});

export const withoutReminder = (mailing: MailingDesign, at: number): MailingDesign => ({
  ...mailing,
  reminders: mailing.reminders.filter((_, place) => place !== at),
});

/** A mailing with something set, or left out where it is what nothing says. */
export function withSet<K extends 'passesOn' | 'counts'>(
  mailing: MailingDesign,
  key: K,
  value: MailingDesign[K] | undefined,
): MailingDesign {
  const { [key]: _, ...rest } = mailing;
  return value === undefined ? (rest as MailingDesign) : { ...mailing, [key]: value };
}

/** A mailing that is due some working days later, or on no day: then nobody is reminded either. */
export function dueIn(mailing: MailingDesign, days: number | null): MailingDesign {
  const isNever = days === null && mailing.when.is !== 'every';
  return { ...mailing, dueIn: days, reminders: isNever ? [] : mailing.reminders };
}

/** A mailing that goes out at other times. Where it stops going out each period, it has to be due some days later. */
export function goesWhen(mailing: MailingDesign, when: MailingDesign['when']): MailingDesign {
  return { ...mailing, when, dueIn: mailing.dueIn === null && when.is !== 'every' ? 5 : mailing.dueIn };
}

/** A mailing that is about something else; whoever stands in what it is about no more is nobody. */
export function isAbout(mailing: MailingDesign, about: MailingDesign['about']): MailingDesign {
  const isOther =
    about.is !== 'requests' || (mailing.about.is === 'requests' && about.register !== mailing.about.register);
  const to: Recipients =
    'named' in mailing.to && isOther
      ? about.is === 'requests'
        ? { named: '~requester' }
        : { audience: { in: { anyOf: [] }, outOf: [] } }
      : mailing.to;
  const when: MailingDesign['when'] =
    mailing.when.is === 'reached' && about.is !== 'requests' ? { is: 'by-hand' } : mailing.when;
  const { counts: _, ...rest } = mailing;
  return { ...(about.is === 'requests' ? mailing : rest), about, to, when };
}
