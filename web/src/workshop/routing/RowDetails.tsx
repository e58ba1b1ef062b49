import { pathName } from '@tolvek/core/approval';
import { deadlineName, hearerInWords, lengthInWords, ruleOf } from '@tolvek/core/deadline';
import { compileText, parseExpression, typeOf, valueInWords } from '@tolvek/core/expression';
import { mayBegin } from '@tolvek/core/register';
import {
  type ComputedName,
  type FollowerPlan,
  isComputed,
  LEAVABLE,
  type LeavableName,
  OUTCOME_WORDS,
  withFormula,
} from '@tolvek/core/routing';
import { FormulaEditor } from '../../conditions/FormulaEditor.tsx';
import { Button } from '../../ui/Button.tsx';
import { Chip } from '../../ui/Chip.tsx';
import { DialogFrame } from '../../ui/DialogFrame.tsx';
import { say, told } from '../../wire/words.ts';
import { useBinder } from '../binder.ts';
import { hearerOf, hearerWord } from '../deadlines/deadlineEdits.ts';
import { useRingNames } from '../deadlines/deadlineSentences.ts';
import { RowDeadlines } from './RowDeadlines.tsx';
import { beginningAt, followedBy, type How, howSet, type RowSaid, setHow } from './rowEdits.ts';

interface RowDetailsProps {
  readonly name: string;
  readonly row: RowSaid;
  /** Whether it can leave something to later rows. */
  readonly mayLeave: boolean;
  readonly open: boolean;
  readonly setOpen: (open: boolean) => void;
  readonly set: (row: RowSaid) => void;
}

/** All that a row sets, and where each thing comes from: what stands in it, a formula, or a later row. */
export function RowDetails({ name, row, mayLeave, open, setOpen, set }: RowDetailsProps) {
  const summary = useSummary(row);
  return (
    <DialogFrame
      isWide
      open={open}
      onOpenChange={setOpen}
      trigger={
        <button
          type="button"
          className="max-w-72 flex-none truncate text-left text-[12.5px] text-green underline"
          aria-label={say('workshop:moreOf', { name, is: summary })}
        >
          {summary}
        </button>
      }
      title={say('workshop:moreTitle', { name })}
    >
      <p className="mt-2 text-soft">{say(mayLeave ? 'workshop:moreIntroEach' : 'workshop:moreIntro')}</p>
      <dl className="mt-3">
        {LEAVABLE.map((of) => (
          <Line key={of} {...{ of, row, mayLeave, set }} />
        ))}
        <div className="grid grid-cols-[9rem_1fr] gap-x-4 border-t border-rule py-2.5">
          <dt className="font-semibold">{say('workshop:rowDeadlines')}</dt>
          <dd>
            <RowDeadlines {...{ name, row, mayLeave, set }} />
          </dd>
        </div>
        <div className="grid grid-cols-[9rem_1fr] gap-x-4 border-t border-rule py-2.5">
          <dt className="font-semibold">{say('workshop:followers')}</dt>
          <dd>
            <Followers {...{ name }} row={row} set={set} />
            <p className="mt-1 text-[13px] text-soft">
              {say(mayLeave ? 'workshop:followersHintEach' : 'workshop:followersHint')}
            </p>
          </dd>
        </div>
      </dl>
      <div className="mt-4">
        <Button look="main" onClick={() => setOpen(false)}>
          {say('common:close')}
        </Button>
      </div>
    </DialogFrame>
  );
}

/** What of a row is not seen in the table, in a few words. */
function useSummary({ outcome, leaves }: RowSaid): string {
  const { form, editing } = useBinder();
  const names = useRingNames();
  const stage = form.stages.find(({ key }) => key === outcome.stage)?.label;
  const followers = (outcome.followers ?? []).map((each) => told(hearerInWords(each, names)));
  const parts = [
    ...(outcome.formulas?.stage !== undefined
      ? [say('workshop:beginsByFormula')]
      : outcome.stage !== undefined && !leaves.includes('stage')
        ? [say('workshop:beginsAt', { stage: stage ?? say('workshop:stageGone') })]
        : []),
    ...(outcome.deadlines ?? []).map(({ deadline, length }) => {
      const rule = ruleOf(editing.draft.deadline, deadline);
      const called = rule ? told(deadlineName(rule)) : say('workshop:rowLengthGone');
      return length === null
        ? say('workshop:rowSetsNone', { name: called })
        : say('workshop:rowSetsLength', { name: called, length: lengthInWords({ length }, names.field) });
    }),
    ...(followers.length > 0 ? [say('workshop:followedBy', { names: followers })] : []),
  ];
  return parts.length > 0 ? parts.join(' · ') : say('workshop:more');
}

interface LineProps {
  readonly of: LeavableName;
  readonly row: RowSaid;
  readonly mayLeave: boolean;
  readonly set: (row: RowSaid) => void;
}

function Line({ of, row, mayLeave, set }: LineProps) {
  const how = howSet(row, of);
  const what = told(OUTCOME_WORDS[of]);
  const ways: readonly How[] = [
    'here',
    ...(isComputed(of) ? (['formula'] as const) : []),
    ...(mayLeave ? (['later'] as const) : []),
  ];
  return (
    <div className="grid grid-cols-[9rem_1fr] gap-x-4 border-t border-rule py-2.5">
      <dt className="pt-1 font-semibold">{what}</dt>
      <dd>
        <span className="flex flex-wrap items-center gap-2">
          {ways.length > 1 ? (
            <select
              aria-label={say('workshop:howSet', { what })}
              className="input w-auto py-1"
              value={how}
              onChange={({ target }) => set(setHow(row, of, target.value as How))}
            >
              {ways.map((way) => (
                <option key={way} value={way}>
                  {say(`workshop:how.${way}`)}
                </option>
              ))}
            </select>
          ) : null}
          {of === 'stage' && how !== 'later' ? <StageOf row={row} set={set} /> : null}
          {how === 'here' ? <Fixed of={of} row={row} /> : null}
        </span>
        {how === 'formula' && isComputed(of) ? <Formula {...{ of, what, row, set }} /> : null}
      </dd>
    </div>
  );
}

/** The value that is chosen in the table, in words. */
function Fixed({ of, row: { outcome } }: Pick<LineProps, 'of' | 'row'>) {
  const { editing, form } = useBinder();
  const path = editing.draft.approval.paths.find(({ id }) => id === outcome.path);
  const is: Readonly<Partial<Record<LeavableName, string>>> = {
    team: form.groups.find(({ key }) => key === outcome.team)?.name ?? outcome.team,
    priority: say(`priorities:${outcome.priority}`),
    workingDays: say('workshop:inDays', { count: outcome.workingDays }),
    path: path ? told(pathName(path)) : say('workshop:noApproval'),
  };
  return is[of] === undefined ? null : <span className="text-soft">{is[of]}</span>;
}

function StageOf({ row, set }: { row: RowSaid; set: (row: RowSaid) => void }) {
  const { form } = useBinder();
  const { stage } = row.outcome;
  const offered = form.stages.filter(mayBegin);
  return (
    <select
      aria-label={say('workshop:stageToBegin')}
      className="input w-auto py-1"
      value={stage ?? ''}
      onChange={({ target }) => set({ ...row, outcome: beginningAt(row.outcome, target.value || null) })}
    >
      <option value="">{say('workshop:firstStage')}</option>
      {stage === undefined || offered.some(({ key }) => key === stage) ? null : (
        <option value={stage}>{say('workshop:stageGone')}</option>
      )}
      {offered.map(({ key, label }) => (
        <option key={key} value={key}>
          {label}
        </option>
      ))}
    </select>
  );
}

/** The formula for something, and what it comes to with the answers of the proof. */
function Formula({
  of,
  what,
  row,
  set,
}: {
  of: ComputedName;
  what: string;
  row: RowSaid;
  set: (row: RowSaid) => void;
}) {
  const { proof } = useBinder().editing;
  const text = row.outcome.formulas?.[of] ?? '';
  const keys = useKeys(of);
  const parsed = parseExpression(text);
  const value = compileText(text, proof.scope)(proof.slots, null);
  const sample = value === null ? '' : told(valueInWords(value, parsed.ok ? typeOf(parsed.value, proof.scope) : null));
  return (
    <div className="mt-2">
      <FormulaEditor
        name={say('workshop:formulaFor', { what })}
        formula={text}
        scope={proof.scope}
        sample={sample}
        set={(formula) => set({ ...row, outcome: withFormula(row.outcome, of, formula) })}
      />
      <p className="mt-1 text-[13px] text-soft">
        {of === 'workingDays' ? say('workshop:formulaHintDays') : say('workshop:formulaHint', { keys })}
      </p>
    </div>
  );
}

/** What a formula may come to, as it is written in it. */
function useKeys(of: ComputedName): readonly string[] {
  const { editing, form } = useBinder();
  const keys: Readonly<Record<ComputedName, readonly string[]>> = {
    workingDays: [],
    team: form.groups.flatMap(({ key, isTeam }) => (isTeam ? [key] : [])),
    priority: ['high', 'normal', 'low'],
    path: editing.draft.approval.paths.map(({ id }) => id),
    stage: form.stages.filter(mayBegin).map(({ key }) => key),
  };
  return keys[of].map((key) => JSON.stringify(key));
}

/** Who follows what the row takes: groups, people, or whoever an answer names. */
function Followers({ name, row, set }: { name: string; row: RowSaid; set: (row: RowSaid) => void }) {
  const { form, editing } = useBinder();
  const names = useRingNames();
  const { followers = [] } = row.outcome;
  const put = (some: readonly FollowerPlan[]): void => set({ ...row, outcome: followedBy(row.outcome, some) });
  const isThere = new Set(followers.map(hearerWord));
  const option = (plan: FollowerPlan) =>
    isThere.has(hearerWord(plan)) ? null : (
      <option key={hearerWord(plan)} value={hearerWord(plan)}>
        {told(hearerInWords(plan, names))}
      </option>
    );
  const named = editing.draft.fields.filter(({ type }) => type.kind === 'person');
  return (
    <span className="flex flex-wrap items-center gap-2">
      {followers.map((plan) => {
        const words = told(hearerInWords(plan, names));
        return (
          <Chip
            key={hearerWord(plan)}
            words={words}
            dropLabel={say('workshop:dropChip', { what: words })}
            drop={() => put(followers.filter((each) => each !== plan))}
          />
        );
      })}
      <select
        className="input w-auto py-1"
        aria-label={say('workshop:addFollowerOf', { name })}
        value=""
        onChange={({ target }) => {
          const plan = hearerOf(target.value);
          if (typeof plan === 'object' && !('duty' in plan) && !('program' in plan)) put([...followers, plan]);
        }}
      >
        <option value="">{say('workshop:addFollower')}</option>
        <optgroup label={say('workshop:ofTheRequest')}>{named.map(({ key }) => option({ field: key }))}</optgroup>
        <optgroup label={say('workshop:someGroup')}>{form.groups.map(({ key }) => option({ group: key }))}</optgroup>
        <optgroup label={say('workshop:onePerson')}>{form.people.map(({ key }) => option({ person: key }))}</optgroup>
      </select>
    </span>
  );
}
