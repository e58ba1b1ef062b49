import { deadlineName, FINISH, instantsOf, scaleOf, type WorkingCalendar } from '@tolvek/core/deadline';
import { type Ahead, prepareAhead } from '@tolvek/core/intake';
import { outcomeOfRow, prepareRouting } from '@tolvek/core/routing';
import { momentIn } from '@tolvek/words/speech';
import { useMemo, useState } from 'react';
import { type CourseLine, CoursePicture } from '../../ui/CoursePicture.tsx';
import { language, say, told } from '../../wire/words.ts';
import { useBinder } from '../binder.ts';
import { useRingNames } from '../deadlines/deadlineSentences.ts';
import { heardIn } from './told.ts';

/** What of the course is changed below: a step by its id, or a deadline by its key. */
export interface Opens {
  readonly step: (id: string) => void;
  readonly deadline: (key: string) => void;
}

/** A moment on a wall clock, whole. */
const WRITTEN = /^[12]\d{3}-\d{2}-\d{2}T\d{2}:\d{2}/;

/** The life of a request as the draft has it: for a row of its table and a moment at which it is sent. */
export function CourseAhead({ opens }: { opens: Opens }) {
  const { editing, form } = useBinder();
  const { draft, proof } = editing;
  const { scope, completion, slots } = proof;
  const names = useRingNames();
  /** The row that was chosen; null: the one that the answers of the proof go by. */
  const [chosen, setChosen] = useState<number | null>(null);
  /** The moment that was chosen, on the wall clock of the form; null: now. */
  const [moment, setMoment] = useState<string | null>(null);
  const route = useMemo(() => prepareRouting(draft.routing, scope), [draft.routing, scope]);
  const { approval, deadline } = draft;
  const aheadFor = useMemo(() => prepareAhead({ approval, deadline }, scope), [approval, deadline, scope]);
  const routed = route(slots);
  const row = chosen !== null && chosen <= draft.routing.rows.length + 1 ? chosen : routed.row;
  // What the answers of the proof come to is computed; of a row that is chosen, what stands in it.
  const outcome = chosen === null ? routed.outcome : (outcomeOfRow(draft.routing, row) ?? routed.outcome);
  const hours = new Map(form.hours.map((each): [string, WorkingCalendar] => [each.key, each]));
  const own = hours.get(deadline.calendar) ?? form.hours[0];
  if (!own) return null;
  const wanted = moment ?? form.now;
  // While a moment is being typed there is none.
  const at = WRITTEN.test(wanted) ? instantsOf(wanted, own.zone)[0] : undefined;
  const ahead =
    at === undefined
      ? null
      : aheadFor({
          ...{ at, outcome, stages: form.stages, values: completion.values, slots },
          calendar: (key) => hours.get(key) ?? own,
        });
  return (
    <section aria-labelledby="course">
      <h2 id="course" className="section-head">
        {say('course:head')}
      </h2>
      <p className="mt-2 flex flex-wrap items-center gap-x-2 gap-y-1">
        {say('course:by')}
        <select
          aria-label={say('course:by')}
          className="max-w-80 border-b-[1.5px] border-green bg-transparent font-semibold text-green"
          value={chosen ?? ''}
          onChange={({ target }) => setChosen(target.value === '' ? null : Number(target.value))}
        >
          <option value="">{say('course:byProof', { row: routed.row })}</option>
          {[...draft.routing.rows, { note: '' }].map(({ note }, index) => (
            // biome-ignore lint/suspicious/noArrayIndexKey: rows are chosen by their place
            <option key={index} value={index + 1}>
              {note === '' ? say('course:row', { row: index + 1 }) : say('course:rowNote', { row: index + 1, note })}
            </option>
          ))}
        </select>
        {say('course:sent')}
        <select
          aria-label={say('course:sent')}
          className="border-b-[1.5px] border-green bg-transparent font-semibold text-green"
          value={moment === null ? 'now' : 'at'}
          onChange={({ target }) => setMoment(target.value === 'now' ? null : form.now.slice(0, 16))}
        >
          <option value="now">{say('course:sentNow')}</option>
          <option value="at">{say('course:sentAt')}</option>
        </select>
        {moment === null ? null : (
          <input
            type="datetime-local"
            aria-label={say('course:moment')}
            className="input w-auto py-0.5"
            value={moment}
            onChange={({ target }) => setMoment(target.value)}
          />
        )}
      </p>
      {ahead ? <Drawn {...{ ahead, own, opens }} heard={heardIn(ahead, outcome, names)} /> : null}
      <p className="mt-1 text-[13px] text-soft">{say('course:intro')}</p>
    </section>
  );
}

function Drawn({
  ahead,
  own,
  opens,
  heard,
}: {
  ahead: Ahead;
  own: WorkingCalendar;
  opens: Opens;
  heard: ReturnType<typeof heardIn>;
}) {
  const { form } = useBinder();
  const { steps, deadlines, others } = ahead;
  const scale = scaleOf(own, ahead.from, ahead.to);
  const on = (at: number): string => momentIn(language(), 'moment', at, own.zone);
  const decided = steps.findLast(({ isAsked }) => isAsked)?.until ?? undefined;
  const finish = deadlines.find(({ rule }) => rule.key === FINISH);
  const stageNamed = (key: string): string => form.stages.find((stage) => stage.key === key)?.label ?? key;
  const stepLines = steps.map(({ step, isAsked, from, until, ends, remind }): CourseLine => {
    const needed = step.seats.length > 1 ? [say('course:needed', { needed: step.needed, of: step.seats.length })] : [];
    const end = isAsked
      ? until === null
        ? say('course:noEnd')
        : say('course:until', { at: on(until) })
      : say('course:notAsked');
    return {
      ...{ key: step.id, name: step.label, says: [...needed, end].join(' · '), from, isOff: !isAsked },
      ...{ to: ends, isOpen: until === null },
      marks: remind === null ? [] : [{ key: 'remind', at: remind, words: on(remind), isLate: false }],
      press: { label: say('course:change', { name: step.label }), does: () => opens.step(step.id) },
    };
  });
  const deadlineLines = deadlines.map(({ rule, from, due, rings }): CourseLine => {
    const name = told(deadlineName(rule));
    return {
      ...{ key: rule.key, name, says: say('course:due', { at: on(due) }), from, to: due, isOff: false, isOpen: false },
      marks: rings.map(({ key, at, isLate }) => ({ key, at, words: on(at), isLate })),
      press: { label: say('course:change', { name }), does: () => opens.deadline(rule.key) },
    };
  });
  return (
    <>
      <div className="mt-3">
        <CoursePicture
          label={say('course:picture')}
          scale={scale}
          stagesHead={say('course:stages')}
          stages={ahead.stages.map(({ key, at }) => ({ key, at, label: stageNamed(key) }))}
          lanes={[
            { key: 'decisions', head: say('course:decisions'), lines: stepLines },
            { key: 'deadlines', head: say('course:deadlines'), lines: deadlineLines },
          ]}
          day={(at) => momentIn(language(), 'day', at, own.zone)}
        />
      </div>
      {decided !== undefined && finish && finish.due < decided ? (
        <p className="mt-2 border-l-[3px] border-brass-mark bg-brass-wash px-3 py-1.5">
          {say('course:tooShort', { until: on(decided), due: on(finish.due) })}
        </p>
      ) : null}
      {others.length > 0 ? (
        <p className="mt-1 text-[13px] text-soft">
          {say('course:others', { count: others.length, names: others.map((rule) => told(deadlineName(rule))) })}
        </p>
      ) : null}
      <details className="mt-2">
        <summary className="font-semibold">{say('course:told')}</summary>
        <ul className="mt-1">
          {heard.map(({ at, what, only }) => (
            <li key={`${at} ${told(what)}`} className="grid grid-cols-[9.5rem_1fr] border-b border-rule py-1">
              <time dateTime={new Date(at).toISOString()} className="text-[13px] text-soft tabular-nums">
                {on(at)}
              </time>
              <span>
                {told(what)} {only ? <span className="text-[13px] text-soft">({say(`course:${only}`)})</span> : null}
              </span>
            </li>
          ))}
        </ul>
      </details>
    </>
  );
}
