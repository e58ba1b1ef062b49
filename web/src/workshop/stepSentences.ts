import type { AnswerOf } from '@tolvek/contract';
import { type ApprovalStep, type SeatPlan, seatWord } from '@tolvek/core/approval';
import { conditionOf, type Scope } from '@tolvek/core/expression';
import { type FormDesign, whenInWords } from '@tolvek/core/form';
import { type Said, said, type Words } from '@tolvek/words';
import { told } from '../wire/words.ts';
import { useBinder } from './binder.ts';
import { HOUR } from './hours.ts';

/** What the sentences of a step name: groups and people of the desk, fields of the form and of profiles. */
interface Named {
  readonly form: Pick<AnswerOf<'form'>, 'outsiders' | 'groups' | 'people' | 'profile' | 'rosters'>;
  readonly fields: FormDesign['fields'];
  readonly scope: Scope;
}

function seatInWords(seat: SeatPlan, times: number, { form, fields }: Named): Words {
  if ('group' in seat) {
    const group = form.groups.find(({ key }) => key === seat.group)?.name ?? seat.group;
    return said('workshop:says.members', { group, count: times });
  }
  if ('field' in seat) {
    const field = fields.find(({ key }) => key === seat.field)?.label ?? seat.field;
    return said('workshop:says.named', { field });
  }
  if ('profile' in seat) {
    const field = form.profile.find(({ key }) => key === seat.profile)?.label ?? seat.profile;
    return said('workshop:says.inProfile', { field });
  }
  if ('duty' in seat)
    return said('deadlines:hears.duty', {
      roster: form.rosters.find(({ key }) => key === seat.duty)?.name ?? said('workshop:rosterGone'),
    });
  const known = [...form.people, ...form.outsiders].find(({ key }) => key === seat.person);
  return known?.label ?? said('workshop:personGone');
}

/** Some seats by whom they ask; the same group twice is two of its members. */
function seatsInWords(seats: readonly SeatPlan[], named: Named): readonly Words[] {
  const times = new Map<string, { readonly seat: SeatPlan; count: number }>();
  for (const seat of seats) {
    const found = times.get(seatWord(seat));
    if (found) found.count += 1;
    else times.set(seatWord(seat), { seat, count: 1 });
  }
  return [...times.values()].map(({ seat, count }) => seatInWords(seat, count, named));
}

/** What a step says, in sentences: whom it asks and when, who decides instead, and what becomes of silence. */
export function stepInSentences(step: ApprovalStep, named: Named): readonly Said[] {
  const { seats, needed, against, instead = [], limit } = step;
  const when = conditionOf(step);
  const who = seatsInWords(seats, named);
  const asks =
    when === null
      ? said('workshop:says.asks', { who })
      : said('workshop:says.asksWhen', { who, when: whenInWords(when, named.scope) });
  const agree =
    seats.length < 2
      ? []
      : needed === seats.length
        ? [said('workshop:says.allAgree', { count: seats.length })]
        : [
            said('workshop:says.someAgree', { needed, of: seats.length }),
            ...(against === undefined ? [] : [said('workshop:says.against', { count: against })]),
          ];
  const others = instead.length === 0 ? [] : [said('workshop:says.instead', { who: seatsInWords(instead, named) })];
  const until = limit
    ? [
        said('workshop:says.until', { hours: limit.within / HOUR }),
        ...(limit.remind === undefined ? [] : [said('workshop:says.remind', { hours: limit.remind / HOUR })]),
        said(`workshop:says.silence.${limit.silence}`),
      ]
    : [];
  const together = (parts: readonly Said[]): readonly Said[] =>
    parts.length === 0 ? [] : [said('common:sentences', { sentences: parts })];
  return [...together([asks, ...agree]), ...together(others), ...together(until)];
}

/** The sentences of a step of the draft that is being worked on. */
export function useStepSentences(step: ApprovalStep): readonly string[] {
  const { editing, form } = useBinder();
  const { draft, proof } = editing;
  return stepInSentences(step, { form, fields: draft.fields, scope: proof.scope }).map((each) => told(each));
}
