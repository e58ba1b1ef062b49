import type { AnswerOf } from '@tolvek/contract';
import { parseExpression, printExpression, type Scope } from '@tolvek/core/expression';
import { type Field, MOVER_WORDS, MOVERS, type Move, type Stage } from '@tolvek/core/register';
import type { Key } from '@tolvek/words';
import { Fragment, useState } from 'react';
import { ConditionBuilder } from '../conditions/ConditionBuilder.tsx';
import { firstCondition } from '../conditions/firstCondition.ts';
import { Button } from '../ui/Button.tsx';
import { ProblemsAt } from '../ui/ProblemsAt.tsx';
import { say, told } from '../wire/words.ts';
import { AddField } from './AddField.tsx';
import { GroupOnTheSpot } from './groundwork/NewGroup.tsx';
import {
  moveInWords,
  type StageDraft,
  targetsOf,
  withChange,
  withMove,
  withoutStage,
  withRetired,
  withStage,
  withWaysSaid,
} from './stages.ts';

const PHASE_WORDS = {
  arrived: 'workshop:phase.arrived',
  working: 'workshop:phase.working',
  paused: 'workshop:phase.paused',
  finished: 'workshop:phase.finished',
} as const satisfies Record<Stage['phase'], Key>;

/** What a page of stages knows of the register they belong to. */
export interface StagesAround {
  readonly was: readonly Stage[];
  /** How many requests are at each stage. */
  readonly at: AnswerOf<'register'>['at'];
  /** The fields that moves may ask for. */
  readonly fields: readonly Field[];
  readonly groups: readonly { readonly key: string; readonly name: string }[];
  readonly scope: Scope;
  readonly error: unknown;
}

interface StagesEditorProps {
  readonly stages: readonly StageDraft[];
  readonly set: (stages: StageDraft[]) => void;
  readonly around: StagesAround;
}

/** The stages of a register, and the ways between them. */
export function StagesEditor({ stages, set, around }: StagesEditorProps) {
  const [open, setOpen] = useState<string | null>(null);
  const { was, at, error } = around;
  return (
    <>
      <table className="w-full border-collapse">
        <thead>
          <tr className="text-left text-[12.5px] text-soft">
            <th scope="col" className="pb-1 font-semibold">
              {say('workshop:stage.staff')}
            </th>
            <th scope="col" className="pb-1 pl-2 font-semibold">
              {say('workshop:stage.requesters')}
            </th>
            <th scope="col" className="pb-1 pl-3 font-semibold">
              {say('workshop:stage.meaning')}
            </th>
            <th scope="col" className="pb-1 pl-3 text-right font-semibold">
              {say('workshop:stage.now')}
            </th>
            <th scope="col" className="pb-1 pl-3 font-semibold">
              {say('workshop:stage.fromHere')}
            </th>
          </tr>
        </thead>
        <tbody>
          {stages.map((stage) => {
            const known = was.find((each) => each.key === stage.key);
            const isByHouse = stage.role === 'deciding' || stage.role === 'refused';
            return (
              <Fragment key={stage.key}>
                <tr className={stage.retired ? 'text-soft' : ''}>
                  {(['label', 'publicLabel'] as const).map((name) => (
                    <td key={name} className={`pb-1.5 align-top ${name === 'publicLabel' ? 'pl-2' : ''}`}>
                      <input
                        className="input"
                        aria-label={`${stage.label}, ${name === 'label' ? say('workshop:stage.forStaff') : say('workshop:stage.forRequesters')}`}
                        value={stage[name]}
                        onChange={(event) => set(withChange(stages, stage.key, { [name]: event.target.value }))}
                      />
                      {name === 'label' ? <ProblemsAt error={error} field={`stage ${stage.key}`} /> : null}
                    </td>
                  ))}
                  <td className="pb-1.5 pl-3 text-[13px] text-soft">
                    {stage.retired ? say('workshop:stage.retired') : say(PHASE_WORDS[stage.phase])}
                  </td>
                  <td className="pb-1.5 pl-3 text-right tabular-nums">{at[stage.key] ?? '–'}</td>
                  <td className="whitespace-nowrap pb-1.5 pl-3 text-[13px]">
                    {isByHouse ? (
                      <span className="text-soft">
                        {stage.role === 'deciding'
                          ? say('workshop:stage.byDecision')
                          : say('workshop:stage.byCoordinator')}
                      </span>
                    ) : (
                      <button
                        type="button"
                        className="text-green underline"
                        aria-expanded={open === stage.key}
                        aria-label={say('workshop:stage.movesFrom', { stage: stage.label })}
                        onClick={() => setOpen(open === stage.key ? null : stage.key)}
                      >
                        {waysWords(stage)}
                      </button>
                    )}
                    {stage.role ? null : (
                      <Leaving stage={stage} isNew={!known} set={(next) => set(next)} stages={stages} />
                    )}
                  </td>
                </tr>
                {open === stage.key ? (
                  <tr>
                    <td colSpan={5} className="pb-3">
                      <Ways stage={stage} stages={stages} set={set} around={around} />
                    </td>
                  </tr>
                ) : null}
              </Fragment>
            );
          })}
        </tbody>
      </table>
      <AddStage add={(label, phase) => set(withStage(stages, label, phase))} />
    </>
  );
}

const waysWords = ({ moves }: StageDraft): string =>
  moves === undefined
    ? say('workshop:stage.toAny')
    : moves.length === 0
      ? say('workshop:stage.onlyCoordinator')
      : moves.length === 1
        ? say('workshop:stage.oneMove')
        : say('workshop:stage.moves', { count: moves.length });

function Leaving({
  stage,
  isNew,
  stages,
  set,
}: {
  stage: StageDraft;
  isNew: boolean;
  stages: readonly StageDraft[];
  set: (stages: StageDraft[]) => void;
}) {
  const act = (): void => set(isNew ? withoutStage(stages, stage.key) : withRetired(stages, stage.key, !stage.retired));
  return (
    <button
      type="button"
      className="ml-3 text-green underline"
      aria-label={`${isNew ? say('workshop:stage.remove') : stage.retired ? say('workshop:stage.useAgain') : say('workshop:stage.retire')} ${stage.label}`}
      onClick={act}
    >
      {isNew
        ? say('workshop:stage.remove')
        : stage.retired
          ? say('workshop:stage.useAgain')
          : say('workshop:stage.retire')}
    </button>
  );
}

function AddStage({ add }: { add: (label: string, phase: Stage['phase']) => void }) {
  const [label, setLabel] = useState('');
  const [phase, setPhase] = useState<Stage['phase']>('working');
  const put = (): void => {
    if (label.trim() === '') return;
    add(label.trim(), phase);
    setLabel('');
  };
  return (
    <div className="mt-1 flex flex-wrap items-center gap-2">
      <input
        className="input w-56"
        aria-label={say('workshop:stage.otherName')}
        placeholder={say('workshop:stage.other')}
        value={label}
        onChange={(event) => setLabel(event.target.value)}
        onKeyDown={(event) => {
          if (event.key !== 'Enter') return;
          event.preventDefault();
          put();
        }}
      />
      <select
        className="input w-auto"
        aria-label={say('workshop:stage.otherMeaning')}
        value={phase}
        onChange={(event) => setPhase(event.target.value as Stage['phase'])}
      >
        {Object.entries(PHASE_WORDS).map(([key, words]) => (
          <option key={key} value={key}>
            {say(words)}
          </option>
        ))}
      </select>
      <Button disabled={label.trim() === ''} onClick={put}>
        {say('workshop:stage.add')}
      </Button>
    </div>
  );
}

interface WaysProps extends StagesEditorProps {
  readonly stage: StageDraft;
}

/** Where a request goes from one stage: anywhere, or only by the ways that are said. */
function Ways({ stage, stages, set, around }: WaysProps) {
  const isSaid = stage.moves !== undefined;
  return (
    <fieldset className="border-l-[3px] border-rule-strong bg-green-wash px-4 py-3">
      <legend className="sr-only">{say('workshop:stage.movesFrom', { stage: stage.label })}</legend>
      <div className="flex flex-wrap gap-x-6 gap-y-1">
        {[false, true].map((said) => (
          <label key={String(said)} className="flex min-h-6 items-center gap-2">
            <input
              type="radio"
              className="accent-green"
              checked={isSaid === said}
              onChange={() => set(withWaysSaid(stages, stage.key, said))}
            />
            {said ? say('workshop:stage.onlyListed') : say('workshop:stage.anyStage')}
          </label>
        ))}
      </div>
      {stage.moves === undefined ? null : (
        <>
          <ul className="mt-2">
            {targetsOf(stages, stage.key).map((to) => (
              <Way
                key={to.key}
                to={to}
                move={stage.moves?.find((each) => each.to === to.key)}
                set={(change) => set(withMove(stages, stage.key, to.key, change))}
                around={around}
              />
            ))}
          </ul>
          <p className="mt-2 text-[13px] text-soft">{say('workshop:stage.coordinatorCan')}</p>
        </>
      )}
    </fieldset>
  );
}

interface WayProps {
  readonly to: StageDraft;
  readonly move: Move | undefined;
  readonly set: (change: Partial<Move> | null) => void;
  readonly around: StagesAround;
}

function Way({ to, move, set, around }: WayProps) {
  const { fields, groups, scope } = around;
  const [isOpen, setOpen] = useState(false);
  const parsed = move && move.when.trim() !== '' ? parseExpression(move.when) : null;
  const when = parsed === null ? '' : parsed.ok ? printExpression(parsed.value, scope) : (move?.when ?? '');
  const groupName = (key: string): string => groups.find((group) => group.key === key)?.name ?? key;
  return (
    <li className="border-b border-rule py-1.5">
      <span className="flex flex-wrap items-baseline gap-x-3">
        <label className="flex min-h-6 items-center gap-2 font-semibold">
          <input
            type="checkbox"
            className="accent-green"
            checked={move !== undefined}
            onChange={() => set(move ? null : {})}
          />
          {say('workshop:stage.to', { stage: to.label })}
        </label>
        {move ? (
          <>
            <span className="text-soft">{told(moveInWords(move, { fields, groupName, when }))}</span>
            <button
              type="button"
              className="text-green underline"
              aria-label={say(isOpen ? 'workshop:stage.closeMove' : 'workshop:stage.changeMove', { stage: to.label })}
              onClick={() => setOpen(!isOpen)}
            >
              {isOpen ? say('common:close') : say('workshop:stage.change')}
            </button>
          </>
        ) : null}
      </span>
      {move && isOpen ? <WayDetails to={to} move={move} set={set} around={around} /> : null}
    </li>
  );
}

function WayDetails({ to, move, set, around }: WayProps & { move: Move }) {
  const { fields, groups, scope } = around;
  const toggled = <T extends string>(list: readonly T[], one: T): T[] =>
    list.includes(one) ? list.filter((each) => each !== one) : [...list, one];
  return (
    <div className="mt-2 ml-6 grid grid-cols-[110px_1fr] gap-x-3 gap-y-2">
      <span className="text-soft">{say('workshop:stage.who')}</span>
      <span className="flex flex-wrap gap-x-4 gap-y-1.5">
        {MOVERS.map((relation) => (
          <label key={relation} className="flex min-h-6 items-center gap-1.5">
            <input
              type="checkbox"
              className="accent-green"
              checked={move.relations.includes(relation)}
              onChange={() => set({ relations: toggled(move.relations, relation) })}
            />
            {told(MOVER_WORDS[relation])}
          </label>
        ))}
        {groups.map((group) => (
          <label key={group.key} className="flex min-h-6 items-center gap-1.5">
            <input
              type="checkbox"
              className="accent-green"
              checked={move.groups.includes(group.key)}
              onChange={() => set({ groups: toggled(move.groups, group.key) })}
            />
            {group.name}
          </label>
        ))}
        <GroupOnTheSpot made={(key) => set({ groups: [...move.groups, key] })} />
        <span className="w-full text-[13px] text-soft">{say('workshop:stage.whoAny')}</span>
      </span>
      <span className="text-soft">{say('workshop:stage.filled')}</span>
      <span className="flex flex-wrap items-center gap-2">
        {move.filled.map((key) => {
          const label = fields.find((field) => field.key === key)?.label ?? key;
          return (
            <span key={key} className="flex items-center gap-1">
              {label}
              <button
                type="button"
                className="min-h-6 min-w-6 text-brick"
                aria-label={say('workshop:stage.notFilled', { field: label })}
                onClick={() => set({ filled: move.filled.filter((each) => each !== key) })}
              >
                ✕
              </button>
            </span>
          );
        })}
        <AddField
          name={say('workshop:filledInBefore', { stage: to.label })}
          prompt={say('workshop:addFieldMore')}
          fields={fields.filter((field) => !move.filled.includes(field.key))}
          className="input w-auto"
          add={(key) => set({ filled: [...move.filled, key] })}
        />
      </span>
      <span className="text-soft">{say('workshop:stage.when')}</span>
      <span>
        {move.when.trim() === '' ? (
          <button type="button" className="text-green underline" onClick={() => set({ when: firstCondition(scope) })}>
            {say('workshop:stage.addCondition')}
          </button>
        ) : (
          <>
            <ConditionBuilder condition={move.when} scope={scope} set={(when) => set({ when })} />
            <button type="button" className="mt-1 text-brick underline" onClick={() => set({ when: '' })}>
              {say('workshop:stage.removeCondition')}
            </button>
          </>
        )}
      </span>
    </div>
  );
}
