import { MOST_DEADLINES } from '@tolvek/core/deadline';
import { say, told } from '../../wire/words.ts';
import { useBinder } from '../binder.ts';
import { FindingLine } from '../Findings.tsx';
import { DeadlineItem } from './DeadlineItem.tsx';
import { addRule, freshDeadline, KINDS, type Kind, leadsAre } from './deadlineEdits.ts';

/** Which one of a list is being changed, if any, and to change another. */
export interface OpenItem {
  readonly open: string | null;
  readonly setOpen: (item: string | null) => void;
}

/** All that a request is due by, each as sentences; and who hears of delays. */
export function DeadlineList({ open, setOpen }: OpenItem) {
  const { editing, form } = useBinder();
  const { draft, change } = editing;
  const { deadlines, leads } = draft.deadline;
  return (
    <>
      <ol aria-label={say('workshop:deadlines')}>
        {deadlines.map((rule, place) => (
          <DeadlineItem
            key={rule.key}
            {...{ rule, place }}
            of={deadlines.length}
            isOpen={open === rule.key}
            open={(isOpen) => setOpen(isOpen ? rule.key : null)}
          />
        ))}
      </ol>
      <DeadlineFindings keys={deadlines.map(({ key }) => key)} />
      {deadlines.length < MOST_DEADLINES ? (
        <p className="mt-4 flex flex-wrap items-center gap-3">
          <label htmlFor="add-deadline" className="sr-only">
            {say('workshop:addDeadline')}
          </label>
          <select
            id="add-deadline"
            className="input w-auto"
            value=""
            onChange={(event) => {
              const kind = event.target.value as Kind;
              const stage = form.stages.find(({ phase, role }) => phase === 'working' && !role) ?? form.stages[0];
              const dated = draft.fields.find(({ type }) => type.kind === 'date' || type.kind === 'date-time');
              setOpen(freshDeadline(draft));
              change((before) =>
                addRule(before, kind, {
                  ...{ name: say(`workshop:deadlineKind.${kind}`), stage: stage?.key ?? '' },
                  field: dated?.key,
                }),
              );
            }}
          >
            <option value="">{say('workshop:addDeadline')}</option>
            {KINDS.map((kind) => (
              <option key={kind} value={kind}>
                {say(`workshop:deadlineKind.${kind}`)}
              </option>
            ))}
          </select>
        </p>
      ) : null}
      <p className="mt-4 flex flex-wrap items-center gap-3">
        <label htmlFor="lead" className="text-soft">
          {say('workshop:leadsAre')}
        </label>
        <select
          id="lead"
          className="input w-auto"
          value={leads}
          onChange={(event) => change((before) => leadsAre(before, event.target.value))}
        >
          {form.groups.map((group) => (
            <option key={group.key} value={group.key}>
              {group.name}
            </option>
          ))}
        </select>
        <span className="text-[13px] text-soft">{say('workshop:leadsHint')}</span>
      </p>
    </>
  );
}

/** What is wrong or doubtful in the deadlines. */
function DeadlineFindings({ keys }: { keys: readonly string[] }) {
  const { editing, form, keeping } = useBinder();
  return keeping.findings
    .filter(({ page, at }) => page === 'approval' && keys.includes(at))
    .map((finding) => (
      <FindingLine key={told(finding.message)} finding={finding} formKey={form.key} change={editing.change} />
    ));
}
