import { deadlineName, ringInWords } from '@tolvek/core/deadline';
import {
  type Departure,
  GROUPING_KINDS,
  type NoticeRule,
  noticeInWords,
  OCCASIONS,
  type Occasion,
  ringsOf,
  waysOf,
} from '@tolvek/core/telling';
import { Button } from '../../ui/Button.tsx';
import { Chip } from '../../ui/Chip.tsx';
import { say, told } from '../../wire/words.ts';
import { useBinder } from '../binder.ts';
import { Hearers } from '../deadlines/Hearers.tsx';
import { StagesPick } from '../deadlines/StagesPick.tsx';
import { MoveButtons } from '../MoveButtons.tsx';
import { OptionalCondition } from '../OptionalCondition.tsx';
import { SettingLine } from '../SettingLine.tsx';
import { NoticeWords } from './NoticeWords.tsx';
import { editNotice, firstDeparture, firstOccasion, moveNotice, noticeIsOff, removeNotice } from './noticeEdits.ts';
import { useNoticeNames } from './useNoticeNames.ts';
import { Ways } from './Ways.tsx';

interface NoticeItemProps {
  readonly rule: NoticeRule;
  readonly place: number;
  readonly of: number;
  readonly isOpen: boolean;
  readonly open: (isOpen: boolean) => void;
}

/** A notice as sentences; pressed, each thing it says is changed. */
export function NoticeItem(props: NoticeItemProps) {
  const { rule, isOpen, open } = props;
  const names = useNoticeNames();
  if (isOpen) return <OpenNotice {...props} />;
  return (
    <li
      id={`at-${rule.key}`}
      className={`mt-2.5 flex items-start gap-3 border border-rule border-l-[3px] bg-sheet px-4 py-2.5 ${rule.off ? 'border-l-rule-strong' : 'border-l-green'}`}
    >
      <div className="min-w-0 flex-1">
        <h3 className="font-serif text-[16.5px]">
          {rule.name}
          {rule.off ? <span className="ml-2 font-sans text-[13px] text-soft">{say('notices:isNotSent')}</span> : null}
        </h3>
        {noticeInWords(rule, names).map((sentence) => (
          <p key={told(sentence)} className="mt-0.5">
            {told(sentence)}
          </p>
        ))}
      </div>
      <Button onClick={() => open(true)} aria-label={say('notices:changeOf', { name: rule.name })}>
        {say('workshop:changeStep')}
      </Button>
    </li>
  );
}

type Edit = (next: Parameters<typeof editNotice>[2]) => void;
interface Editing {
  readonly rule: NoticeRule;
  readonly edit: Edit;
}

function OpenNotice({ rule, place, of, open }: NoticeItemProps) {
  const { editing } = useBinder();
  const { change, proof } = editing;
  const { key, name, on } = rule;
  const edit: Edit = (next) => change((before) => editNotice(before, key, next));
  const waits = on.is === 'becomes';
  return (
    <li id={`at-${key}`} className="mt-3 border border-rule border-l-[3px] border-l-green bg-sheet px-4 py-3">
      <div className="flex flex-wrap items-center gap-x-3 gap-y-2">
        <label htmlFor={`name-${key}`} className="font-semibold">
          {say('notices:name')}
        </label>
        <input
          id={`name-${key}`}
          className="input min-w-40 flex-1"
          value={name}
          onChange={(event) => edit({ name: event.target.value })}
        />
        {of > 1 ? (
          <span className="flex gap-1">
            <MoveButtons
              index={place}
              of={of}
              words={[say('notices:up', { name }), say('notices:down', { name })]}
              move={(way) => change((before) => moveNotice(before, key, way))}
            />
          </span>
        ) : null}
        <Button
          look="refuse"
          onClick={() => {
            open(false);
            change((before) => removeNotice(before, key));
          }}
        >
          {say('notices:remove')}
        </Button>
      </div>
      <div className="mt-3 grid grid-cols-[120px_1fr] gap-x-3 gap-y-2.5 max-sm:grid-cols-1">
        <About {...{ rule, edit }} />
        <SettingLine
          label={say(waits ? 'notices:waitsFor' : on.is === 'group' ? 'notices:countedIf' : 'notices:onlyIf')}
        >
          <OptionalCondition condition={rule.when ?? ''} scope={proof.scope} set={(when) => edit({ when })} />
        </SettingLine>
        <SettingLine label={say('notices:toWhom')}>
          <Hearers
            label={say('notices:toMore')}
            nobody={say('notices:toNobodyYet')}
            prompt={say('notices:toMore')}
            who={rule.to}
            set={(to) => edit({ to })}
            besides={['followers']}
            several
            programs
          />
        </SettingLine>
        <NoticeWords id={key} notice={rule} set={edit} />
        <span />
        <label className="flex items-center gap-2">
          <input
            type="checkbox"
            className="accent-green"
            checked={rule.answers}
            onChange={(event) => edit({ answers: event.target.checked })}
          />
          {say('notices:showAnswers')}
        </label>
        <Leaves {...{ rule, edit }} />
        <Ways ways={waysOf(rule)} set={(ways) => edit({ ways })} />
        <span />
        <label className="flex items-center gap-2">
          <input
            type="checkbox"
            className="accent-green"
            checked={!rule.off}
            onChange={(event) => change((before) => noticeIsOff(before, key, !event.target.checked))}
          />
          {say('notices:sendIt')}
        </label>
      </div>
      <p className="mt-3">
        <Button onClick={() => open(false)}>{say('workshop:stepDone')}</Button>
      </p>
    </li>
  );
}

/** What has to happen. */
function About({ rule, edit }: Editing) {
  const { editing } = useBinder();
  const { key, on } = rule;
  const set = (next: Occasion): void => edit({ on: next });
  const isThere = OCCASIONS.filter((is) => is === on.is || firstOccasion(is, editing.draft) !== null);
  return (
    <SettingLine label={say('notices:when')} htmlFor={`on-${key}`}>
      <select
        id={`on-${key}`}
        className="input w-auto"
        value={on.is}
        onChange={(event) => {
          const next = firstOccasion(event.target.value as Occasion['is'], editing.draft);
          if (next) set(next);
        }}
      >
        {isThere.map((is) => (
          <option key={is} value={is}>
            {say(`notices:pick.${is}`)}
          </option>
        ))}
      </select>
      <AboutDetails {...{ on, set }} />
    </SettingLine>
  );
}

function AboutDetails({ on, set }: { on: Occasion; set: (on: Occasion) => void }) {
  const { editing } = useBinder();
  const { draft } = editing;
  switch (on.is) {
    case 'changed': {
      const labelOf = (key: string): string =>
        draft.fields.find((field) => field.key === key)?.label ?? say('workshop:lostField', { key });
      return (
        <span className="flex flex-wrap items-center gap-2">
          {on.fields.length === 0 ? say('notices:anyField') : null}
          {on.fields.map((key) => (
            <Chip
              key={key}
              words={labelOf(key)}
              dropLabel={say('workshop:dropChip', { what: labelOf(key) })}
              drop={() => set({ ...on, fields: on.fields.filter((each) => each !== key) })}
            />
          ))}
          <select
            className="input w-auto"
            aria-label={say('notices:fieldMore')}
            value=""
            onChange={(event) => set({ ...on, fields: [...on.fields, event.target.value] })}
          >
            <option value="">{say('notices:fieldMore')}</option>
            {draft.fields.map(({ key, label }) =>
              on.fields.includes(key) ? null : (
                <option key={key} value={key}>
                  {label}
                </option>
              ),
            )}
          </select>
        </span>
      );
    }
    case 'stage':
      return (
        <span className="flex flex-wrap items-center gap-2">
          {on.stages.length === 0 ? say('notices:anyStage') : null}
          <StagesPick label={say('notices:stageMore')} stages={on.stages} set={(stages) => set({ ...on, stages })} />
        </span>
      );
    case 'decided':
      return (
        <Pick
          label={say('notices:decidedAs')}
          value={on.as}
          options={(['either', 'approved', 'refused'] as const).map((as) => [as, say(`notices:as.${as}`)])}
          set={(as) => set({ ...on, as })}
        />
      );
    case 'message':
      return (
        <Pick
          label={say('notices:writtenBy')}
          value={on.from}
          options={(['requester', 'desk', 'either'] as const).map((from) => [from, say(`notices:from.${from}`)])}
          set={(from) => set({ ...on, from })}
        />
      );
    case 'ring':
      return (
        <Pick
          label={say('notices:which')}
          value={`${on.deadline} ${on.ring}`}
          options={ringsOf(draft.deadline).map(({ rule, ring }) => [
            `${rule.key} ${ring.key}`,
            `${told(deadlineName(rule))}, ${told(ringInWords(ring))}`,
          ])}
          set={(which) => {
            const [deadline = '', ring = ''] = which.split(' ');
            set({ ...on, deadline, ring });
          }}
        />
      );
    case 'group':
      return <OfGroup {...{ on, set }} />;
    default:
      return null;
  }
}

/** Of which groups, and how many there have to be. */
function OfGroup({ on, set }: { on: Extract<Occasion, { is: 'group' }>; set: (on: Occasion) => void }) {
  const { editing } = useBinder();
  const fields = editing.draft.fields.filter(({ type }) => GROUPING_KINDS.some((kind) => kind === type.kind));
  return (
    <span className="flex flex-wrap items-center gap-2">
      <Pick
        label={say('notices:groupCounts')}
        value={on.counts}
        options={(['fewer', 'more'] as const).map((counts) => [counts, say(`notices:groupCounts.${counts}`)])}
        set={(counts) => set({ ...on, counts })}
      />
      <input
        type="number"
        min={0}
        max={1_000}
        className="input w-20"
        aria-label={say('notices:groupThan')}
        value={on.than}
        onChange={({ target }) =>
          set({ ...on, than: Math.max(0, Math.min(1_000, Math.round(Number(target.value) || 0))) })
        }
      />
      <Pick
        label={say('notices:groupBy')}
        value={on.by ?? ''}
        options={[
          ['', say('notices:groupByAll')],
          ...fields.map(({ key, label }): [string, string] => [key, say('notices:groupOf', { field: label })]),
        ]}
        set={(by) => set({ ...on, by: by || null })}
      />
    </span>
  );
}

const Pick = <Value extends string>({
  label,
  value,
  options,
  set,
}: {
  label: string;
  value: Value;
  options: readonly (readonly [Value, string])[];
  set: (value: Value) => void;
}) => (
  <select
    className="input w-auto"
    aria-label={label}
    value={value}
    onChange={(event) => set(event.target.value as Value)}
  >
    {options.map(([each, words]) => (
      <option key={each} value={each}>
        {words}
      </option>
    ))}
  </select>
);

const WEEK = [1, 2, 3, 4, 5, 6, 7] as const;
const DAYS: readonly (readonly number[])[] = [WEEK, [1, 2, 3, 4, 5], ...WEEK.map((day) => [day])];

/** When it goes: at once, or with others. */
function Leaves({ rule, edit }: Editing) {
  const { editing } = useBinder();
  const { key, goes } = rule;
  const set = (next: Departure): void => edit({ goes: next });
  return (
    <>
      <SettingLine label={say('notices:goesWhen')} htmlFor={`goes-${key}`}>
        <select
          id={`goes-${key}`}
          className="input w-auto"
          value={goes.goes}
          onChange={(event) => set(firstDeparture(event.target.value as Departure['goes']))}
        >
          {(['at-once', 'gathered', 'digest'] as const).map((each) => (
            <option key={each} value={each}>
              {say(`notices:goesPick.${each}`)}
            </option>
          ))}
        </select>
        {goes.goes === 'gathered' ? (
          <span className="flex items-center gap-2">
            <input
              type="number"
              className="input w-20"
              min={1}
              max={1_440}
              aria-label={say('notices:minutes')}
              value={goes.minutes}
              onChange={(event) =>
                set({ ...goes, minutes: Math.min(1_440, Math.max(1, Math.round(Number(event.target.value)) || 1)) })
              }
            />
            {say('notices:minutes')}
          </span>
        ) : null}
        {goes.goes === 'digest' ? (
          <span className="flex flex-wrap items-center gap-2">
            <input
              type="time"
              className="input w-auto"
              aria-label={say('notices:atTime')}
              value={goes.at}
              onChange={(event) => {
                if (event.target.value !== '') set({ ...goes, at: event.target.value });
              }}
            />
            <Pick
              label={say('notices:onDays')}
              value={[...goes.days].sort().join('')}
              options={DAYS.map((days) => [days.join(''), daysInWords(days)])}
              set={(days) => set({ ...goes, days: [...days].map(Number) })}
            />
          </span>
        ) : null}
        <span className="w-full text-[13px] text-soft">{say('notices:ownTimes')}</span>
      </SettingLine>
      {goes.goes === 'at-once' ? null : (
        <SettingLine label={say('notices:orUrgent')}>
          <OptionalCondition
            condition={rule.urgent ?? ''}
            scope={editing.proof.scope}
            set={(urgent) => edit({ urgent })}
          />
        </SettingLine>
      )}
    </>
  );
}

function daysInWords(days: readonly number[]): string {
  if (days.length === 7) return say('hearing:everyDay');
  if (days.length > 1) return say('hearing:workingDays');
  const [day = 1] = days;
  return say('hearing:onDay', { day: say(`hearing:day.${String(day) as '1' | '2' | '3' | '4' | '5' | '6' | '7'}`) });
}
