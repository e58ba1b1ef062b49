import { type ApprovalPath, pathName } from '@tolvek/core/approval';
import { allRows, mayBe } from '@tolvek/core/routing';
import { Link } from 'react-router';
import { Button } from '../ui/Button.tsx';
import { Chip } from '../ui/Chip.tsx';
import { say, told } from '../wire/words.ts';
import { useBinder } from './binder.ts';
import type { OpenItem } from './deadlines/DeadlineList.tsx';
import { FindingLine } from './Findings.tsx';
import { StepItem } from './StepItem.tsx';
import { addPath, addStep, askAgain, freshStep, namePath, removePath, seatBesides } from './steps.ts';

/** Who decides, in which turn: the paths that rows of the routing table choose from, each with its steps. */
export function ApprovalSteps({ open, setOpen }: OpenItem) {
  const { editing, form, keeping } = useBinder();
  const { draft, change } = editing;
  const { paths } = draft.approval;
  const groups = form.groups.map(({ key }) => key);
  const findings = keeping.findings.filter(({ page, at }) => page === 'approval' && at === 'step');
  return (
    <div id="at-step">
      {paths.map((path) => (
        <Path key={path.id} {...{ path, groups, open, setOpen }} isOnly={paths.length === 1} />
      ))}
      {findings.map((finding) => (
        <FindingLine key={told(finding.message)} finding={finding} formKey={form.key} change={change} />
      ))}
      <p className="mt-5">
        <Button
          disabled={groups.length === 0}
          onClick={() => {
            setOpen(freshStep(draft));
            change((before) =>
              addPath(before, say('workshop:anotherPath'), say('workshop:nextStep'), seatBesides([], groups)),
            );
          }}
        >
          {say('workshop:addPath')}
        </Button>{' '}
        <span className="ml-2 text-[13px] text-soft">{say('workshop:addPathHint')}</span>
      </p>
    </div>
  );
}

interface PathProps {
  readonly path: ApprovalPath;
  readonly isOnly: boolean;
  readonly groups: readonly string[];
  /** The id of the step that is being changed. */
  readonly open: string | null;
  readonly setOpen: (step: string | null) => void;
}

/** A path with its steps; where there are several, with its name and the rows that choose it. */
function Path({ path, isOnly, groups, open, setOpen }: PathProps) {
  const { editing } = useBinder();
  const { change } = editing;
  const { id, label, steps } = path;
  return (
    <section className={isOnly ? '' : 'mt-5 border-t border-rule-strong pt-3'} aria-label={told(pathName(path))}>
      {isOnly ? null : (
        <>
          <div className="flex flex-wrap items-center gap-x-3 gap-y-2">
            <label htmlFor={`path-${id}`} className="font-serif text-[17px]">
              {say('workshop:path')}
            </label>
            <input
              id={`path-${id}`}
              className="input min-w-40 flex-1"
              value={label}
              placeholder={told(pathName({ label: '', steps }))}
              onChange={(event) => change((before) => namePath(before, id, event.target.value))}
            />
          </div>
          <ChosenBy path={path} />
        </>
      )}
      <ol>
        {steps.map((step, place) => (
          <StepItem
            key={step.id}
            {...{ step, place, groups }}
            of={steps.length}
            isOpen={open === step.id}
            open={(isOpen) => setOpen(isOpen ? step.id : null)}
          />
        ))}
      </ol>
      <p className="mt-3">
        <Button
          disabled={groups.length === 0}
          onClick={() => {
            setOpen(freshStep(editing.draft));
            change((before) =>
              addStep(before, id, say('workshop:nextStep'), seatBesides(steps.at(-1)?.seats ?? [], groups)),
            );
          }}
        >
          {say('workshop:addStep')}
        </Button>
      </p>
      <AskedAgain path={path} />
    </section>
  );
}

/** By the change of which fields who decides is asked again. */
function AskedAgain({ path: { id, again = [] } }: { path: ApprovalPath }) {
  const { editing } = useBinder();
  const { draft, change } = editing;
  const set = (fields: readonly string[]): void => change((before) => askAgain(before, id, fields));
  const labelOf = (key: string): string => draft.fields.find((field) => field.key === key)?.label ?? key;
  const others = draft.fields.filter(({ key }) => !again.includes(key));
  return (
    <div className="mt-3 flex flex-wrap items-center gap-x-3 gap-y-2">
      <span className="text-soft">{say('workshop:askAgainWhen')}</span>
      {again.length === 0 ? <span>{say('workshop:askAgainNever')}</span> : null}
      {again.map((key) => (
        <Chip
          key={key}
          words={labelOf(key)}
          dropLabel={say('workshop:dropAgain', { field: labelOf(key) })}
          drop={() => set(again.filter((each) => each !== key))}
        />
      ))}
      <select
        className="input w-auto py-1"
        aria-label={say('workshop:addAgain')}
        value=""
        onChange={(event) => set([...again, event.target.value])}
      >
        <option value="">{say('workshop:addAgain')}</option>
        {others.map(({ key, label }) => (
          <option key={key} value={key}>
            {label}
          </option>
        ))}
      </select>
    </div>
  );
}

/** Which rows of the routing table choose a path; one that none chooses can go. */
function ChosenBy({ path: { id } }: { path: ApprovalPath }) {
  const { editing, form } = useBinder();
  const { draft, change } = editing;
  const chosen = allRows(draft.routing).flatMap((row, at) =>
    mayBe(row, 'path', () => editing.proof.scope).includes(id) ? [String(at + 1)] : [],
  );
  return (
    <p className="mt-1 text-[13px] text-soft">
      {chosen.length === 0 ? (
        <>
          {say('workshop:chosenByNoRow')}{' '}
          <button
            type="button"
            className="text-green underline"
            onClick={() => change((before) => removePath(before, id))}
          >
            {say('workshop:removePath')}
          </button>
        </>
      ) : (
        <Link to={`/workshop/${form.key}/routing`}>
          {say('workshop:chosenByRows', { rows: chosen, count: chosen.length })}
        </Link>
      )}
    </p>
  );
}
