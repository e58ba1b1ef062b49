import { type DeadlineLength, type DeadlineRule, deadlineName, FINISH } from '@tolvek/core/deadline';
import { Button } from '../../ui/Button.tsx';
import { say, told } from '../../wire/words.ts';
import { useBinder } from '../binder.ts';
import { MoveButtons } from '../MoveButtons.tsx';
import { OptionalCondition } from '../OptionalCondition.tsx';
import { SettingLine } from '../SettingLine.tsx';
import { editRule, firstLength, moveRule, removeRule } from './deadlineEdits.ts';
import { useDeadlineSentences } from './deadlineSentences.ts';
import { LengthDetails } from './LengthDetails.tsx';
import { Rings } from './Rings.tsx';
import { StagesPick } from './StagesPick.tsx';

interface DeadlineItemProps {
  readonly rule: DeadlineRule;
  readonly place: number;
  readonly of: number;
  /** Whether it is being changed. */
  readonly isOpen: boolean;
  readonly open: (isOpen: boolean) => void;
}

/** A deadline as sentences; pressed, each thing it says is changed. */
export function DeadlineItem(props: DeadlineItemProps) {
  const { rule, isOpen, open } = props;
  const sentences = useDeadlineSentences(rule);
  const name = told(deadlineName(rule));
  if (isOpen) return <OpenDeadline {...props} />;
  return (
    <li
      id={`at-${rule.key}`}
      className="mt-2.5 flex items-start gap-3 border border-rule border-l-[3px] border-l-green bg-sheet px-4 py-2.5"
    >
      <div className="min-w-0 flex-1">
        <h3 className="font-serif text-[16.5px]">{name}</h3>
        {sentences.map((sentence) => (
          <p key={sentence} className="mt-0.5">
            {sentence}
          </p>
        ))}
      </div>
      <Button onClick={() => open(true)} aria-label={say('workshop:changeDeadlineOf', { name })}>
        {say('workshop:changeStep')}
      </Button>
    </li>
  );
}

type Edit = (next: Partial<Omit<DeadlineRule, 'key'>>) => void;
interface Editing {
  readonly rule: DeadlineRule;
  readonly edit: Edit;
}

function OpenDeadline({ rule, place, of, open }: DeadlineItemProps) {
  const { editing, form } = useBinder();
  const { change } = editing;
  const { key } = rule;
  const isFinish = key === FINISH;
  const name = told(deadlineName(rule));
  const edit: Edit = (next) => change((before) => editRule(before, key, next));
  return (
    <li id={`at-${key}`} className="mt-3 border border-rule border-l-[3px] border-l-green bg-sheet px-4 py-3">
      <div className="flex flex-wrap items-center gap-x-3 gap-y-2">
        <label htmlFor={`name-${key}`} className="font-semibold">
          {say('workshop:deadline')}
        </label>
        <input
          id={`name-${key}`}
          className="input min-w-40 flex-1"
          value={rule.name}
          placeholder={told(deadlineName({ key, name: '' }))}
          onChange={(event) => edit({ name: event.target.value })}
        />
        {of > 1 ? (
          <span className="flex gap-1">
            <MoveButtons
              index={place}
              of={of}
              words={[say('workshop:deadlineUp', { name }), say('workshop:deadlineDown', { name })]}
              move={(way) => change((before) => moveRule(before, key, way))}
            />
          </span>
        ) : null}
        {isFinish ? null : (
          <Button look="refuse" onClick={() => change((before) => removeRule(before, key))}>
            {say('workshop:removeDeadline')}
          </Button>
        )}
      </div>
      <div className="mt-3 grid grid-cols-[120px_1fr] gap-x-3 gap-y-2.5 max-sm:grid-cols-1">
        <Length {...{ rule, edit }} />
        {isFinish ? null : (
          <>
            <Begins {...{ rule, edit }} />
            <Ends {...{ rule, edit }} />
          </>
        )}
        <Stands {...{ rule, edit }} />
        {isFinish ? null : (
          <SettingLine label={say('workshop:deadlineWhen')}>
            <OptionalCondition condition={rule.when ?? ''} scope={editing.proof.scope} set={(when) => edit({ when })} />
          </SettingLine>
        )}
        {form.calendars.length > 1 ? <CalendarOf {...{ rule, edit }} /> : null}
        <Rings rule={rule} />
      </div>
      <p className="mt-3">
        <Button onClick={() => open(false)}>{say('workshop:stepDone')}</Button>
      </p>
    </li>
  );
}

function CalendarOf({ rule, edit }: Editing) {
  const { form } = useBinder();
  const id = `calendar-${rule.key}`;
  return (
    <SettingLine label={say('workshop:countsBy')} htmlFor={id}>
      <select
        id={id}
        className="input w-auto"
        value={rule.calendar ?? ''}
        onChange={(event) => edit({ calendar: event.target.value })}
      >
        <option value="">{say('workshop:formsCalendar', { calendar: form.calendar.name })}</option>
        {form.calendars.map(({ key, name }) => (
          <option key={key} value={key}>
            {name}
          </option>
        ))}
      </select>
    </SettingLine>
  );
}

const LENGTHS = ['routing', 'days', 'time', 'field', 'formula'] as const satisfies readonly DeadlineLength['by'][];

function Length({ rule, edit }: Editing) {
  const { editing } = useBinder();
  const dated = editing.draft.fields.filter(({ type }) => type.kind === 'date' || type.kind === 'date-time');
  const { length } = rule;
  const id = `length-${rule.key}`;
  const set = (next: DeadlineLength): void => edit({ length: next });
  return (
    <SettingLine label={say('workshop:timeAllowed')} htmlFor={id}>
      <select
        id={id}
        className="input w-auto"
        value={length.by}
        onChange={(event) => set(firstLength(event.target.value as DeadlineLength['by'], dated[0]?.key))}
      >
        {LENGTHS.filter((by) => by !== 'field' || dated.length > 0 || length.by === 'field').map((by) => (
          <option key={by} value={by}>
            {say(`workshop:lengthBy.${by}`)}
          </option>
        ))}
      </select>
      <LengthDetails {...{ length, set, dated }} name={told(deadlineName(rule))} />
    </SettingLine>
  );
}

function Begins({ rule, edit }: Editing) {
  const { begins } = rule;
  const { form } = useBinder();
  const id = `begins-${rule.key}`;
  return (
    <SettingLine label={say('workshop:deadlineBegins')} htmlFor={id}>
      <select
        id={id}
        className="input w-auto"
        value={begins.on}
        onChange={(event) =>
          edit({
            begins:
              event.target.value === 'stages'
                ? { on: 'stages', stages: form.stages.slice(0, 1).map(({ key }) => key) }
                : { on: 'arrival' },
          })
        }
      >
        <option value="arrival">{say('workshop:begins.arrival')}</option>
        <option value="stages">{say('workshop:begins.stages')}</option>
      </select>
      {begins.on === 'stages' ? (
        <StagesPick
          label={say('workshop:beginsIn')}
          stages={begins.stages}
          set={(stages) => edit({ begins: { on: 'stages', stages } })}
        />
      ) : null}
    </SettingLine>
  );
}

function Ends({ rule, edit }: Editing) {
  const { begins, ends } = rule;
  const { form } = useBinder();
  const id = `ends-${rule.key}`;
  const ways = ['finished', 'answered', ...(begins.on === 'stages' ? (['left'] as const) : []), 'stages'] as const;
  return (
    <SettingLine label={say('workshop:deadlineEnds')} htmlFor={id}>
      <select
        id={id}
        className="input w-auto"
        value={ends.on}
        onChange={(event) => {
          const on = event.target.value as (typeof ways)[number];
          const last = form.stages.filter(({ phase }) => phase === 'working').at(-1) ?? form.stages[0];
          edit({ ends: on === 'stages' ? { on, stages: last ? [last.key] : [] } : { on } });
        }}
      >
        {ways.map((on) => (
          <option key={on} value={on}>
            {say(`workshop:ends.${on}`)}
          </option>
        ))}
      </select>
      {ends.on === 'stages' ? (
        <StagesPick
          label={say('workshop:endsIn')}
          stages={ends.stages}
          set={(stages) => edit({ ends: { on: 'stages', stages } })}
        />
      ) : null}
    </SettingLine>
  );
}

function Stands({ rule, edit }: Editing) {
  const { stands, length } = rule;
  const { form } = useBinder();
  const id = `stands-${rule.key}`;
  if (length.by === 'field') return null;
  return (
    <SettingLine label={say('workshop:deadlineStands')} htmlFor={id}>
      <select
        id={id}
        className="input w-auto"
        value={stands.on}
        onChange={(event) => {
          const on = event.target.value as DeadlineRule['stands']['on'];
          const paused = form.stages.filter(({ phase }) => phase === 'paused').map(({ key }) => key);
          edit({ stands: on === 'stages' ? { on, stages: paused } : { on } });
        }}
      >
        {(['paused', 'stages', 'never'] as const).map((on) => (
          <option key={on} value={on}>
            {say(`workshop:stands.${on}`)}
          </option>
        ))}
      </select>
      {stands.on === 'stages' ? (
        <StagesPick
          label={say('workshop:standsIn')}
          stages={stands.stages}
          set={(stages) => edit({ stands: { on: 'stages', stages } })}
        />
      ) : null}
    </SettingLine>
  );
}
