import { ACTIVITIES, type Activity } from '@tolvek/core/access';
import { useEffect, useRef, useState } from 'react';
import { useSearchParams } from 'react-router';
import { say, told } from '../../wire/words.ts';
import { workshopApi } from '../endpoints.ts';
import { RECIPES, type Recipe } from './planEdits.ts';
import type { Plan } from './usePlan.ts';

const LOOKS = { hidden: 'font-semibold text-brick', read: 'text-soft', write: 'text-ink' } as const;

interface GridProps {
  readonly plan: Plan;
  readonly add: (recipe: Recipe, fields: readonly string[]) => void;
  /** Opens a rule, to be changed. */
  readonly change: (id: string) => void;
  /** Keys of the fields whose reading is recorded, and what has it recorded, or not any more. */
  readonly noted: readonly string[];
  readonly note: (field: string) => void;
}

/** What comes of a plan, field by field for each group: a cell is pressed for its reason, and for a rule about its field. */
export function Grid({ plan, add, change, noted, note }: GridProps) {
  const { fields, draft, stages } = plan;
  const [stage, setStage] = useState('');
  const [activity, setActivity] = useState<Activity | ''>('');
  const isWhole = stage === '' && activity === '';
  const { data: part } = workshopApi.useAccessPlanGridQuery(
    {
      key: plan.key,
      query: { ...(stage === '' ? {} : { stage }), ...(activity === '' ? {} : { activity }) },
    },
    { skip: isWhole },
  );
  const grid = isWhole ? plan.grid : (part ?? plan.grid);
  // Whoever comes from a field looks at it first.
  const asked = useSearchParams()[0].get('field');
  const from = fields.find(({ key }) => key === asked)?.label ?? '';
  const [find, setFind] = useState(from);
  const head = useRef<HTMLHeadingElement>(null);
  useEffect(() => {
    if (from !== '') head.current?.scrollIntoView({ block: 'start' });
  }, [from]);
  const [open, setOpen] = useState<readonly [string, number] | null>(null);
  const looked = find.trim().toLowerCase();
  const labelOf = (key: string): string => fields.find((field) => field.key === key)?.label ?? key;
  const rows = grid.rows.filter(({ field }) => labelOf(field).toLowerCase().includes(looked));
  return (
    <>
      <div className="mt-8 flex flex-wrap items-baseline gap-4">
        <h2 ref={head} className="section-head flex-1">
          {say('workshop:access.who')}
        </h2>
        <input
          type="search"
          className="input w-56"
          aria-label={say('accessPlan:findField')}
          placeholder={say('accessPlan:findField')}
          value={find}
          onChange={(event) => setFind(event.target.value)}
        />
      </div>
      <p className="flex flex-wrap items-center gap-x-4 gap-y-1 text-[13px] text-soft">
        <label>
          {say('accessPlan:whileAt')}{' '}
          <select
            className="border-green border-b bg-transparent font-semibold text-green"
            value={stage}
            onChange={(event) => setStage(event.target.value)}
          >
            <option value="">{say('accessPlan:anyStage')}</option>
            {stages.map(({ key, label }) => (
              <option key={key} value={key}>
                {label}
              </option>
            ))}
          </select>
        </label>
        <label>
          {say('accessPlan:doing')}{' '}
          <select
            className="border-green border-b bg-transparent font-semibold text-green"
            value={activity}
            onChange={(event) => setActivity(event.target.value as Activity | '')}
          >
            <option value="">{say('accessPlan:anything')}</option>
            {ACTIVITIES.map((each) => (
              <option key={each} value={each}>
                {say(`accessPlan:activity.${each}`)}
              </option>
            ))}
          </select>
        </label>
        <span>{say('accessPlan:gridHint')}</span>
      </p>
      <div className="overflow-x-auto">
        <table className="mt-1 w-full border-collapse">
          <thead>
            <tr className="border-b border-rule-strong text-left align-bottom text-[11.5px] text-soft">
              <th scope="col" className="py-1.5 pr-3 font-semibold">
                {say('workshop:field')}
              </th>
              {grid.seats.map((who) => (
                <th key={told(who)} scope="col" className="py-1.5 pr-3 font-semibold first-letter:uppercase">
                  {told(who)}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {rows.map(({ field, cells }) => {
              const at = open?.[0] === field ? open[1] : null;
              const cell = at === null ? undefined : cells[at];
              return [
                <tr key={field} className="border-b border-rule">
                  <th scope="row" className="py-1 pr-3 text-left font-normal">
                    {labelOf(field)}
                    {plan.unplaced.includes(field) ? (
                      <span className="block text-[11.5px] text-brass">{say('accessPlan:isNew')}</span>
                    ) : null}
                    {noted.includes(field) ? (
                      <span className="block text-[11.5px] text-soft">{say('accessPlan:isNoted')}</span>
                    ) : null}
                  </th>
                  {cells.map(({ level, most, was }, index) => (
                    <td key={told(grid.seats[index] ?? '')} className="py-1 pr-3">
                      <button
                        type="button"
                        aria-expanded={at === index}
                        className={`-ml-1 rounded px-1 text-left hover:underline ${LOOKS[level]} ${was === null ? '' : 'bg-green-wash outline outline-1 outline-green'}`}
                        onClick={() => setOpen(at === index ? null : [field, index])}
                      >
                        {say(`accessPlan:cell.${level}`)}
                        {most === null ? null : (
                          <span className="font-normal text-soft">
                            {' '}
                            {say('accessPlan:cellOr', { most: say(`accessPlan:cell.${most}`) })}
                          </span>
                        )}
                        {was === null ? null : (
                          <span className="block text-[11.5px] font-normal text-soft">
                            {say('accessPlan:cellWas', { was: say(`accessPlan:cell.${was}`) })}
                          </span>
                        )}
                      </button>
                    </td>
                  ))}
                </tr>,
                cell ? (
                  <tr key={`${field} why`}>
                    <td colSpan={cells.length + 1} className="border-l-[3px] border-green bg-sheet px-3 py-2">
                      {say('accessPlan:because', {
                        who: told(grid.seats[at ?? 0] ?? ''),
                        field: labelOf(field),
                        level: say(`accessPlan:cell.${cell.level}`),
                        rule: told(cell.rule),
                      })}{' '}
                      {cell.most === null
                        ? null
                        : say('accessPlan:becauseMost', { most: say(`accessPlan:cell.${cell.most}`) })}
                      <span className="mt-1 flex flex-wrap gap-4">
                        {draft.rules
                          .filter(({ name }) => name.trim() === told(cell.rule))
                          .map(({ id }) => (
                            <button key={id} type="button" className="text-green underline" onClick={() => change(id)}>
                              {say('accessPlan:changeThis')}
                            </button>
                          ))}
                        {RECIPES.map((recipe) => (
                          <button
                            key={recipe}
                            type="button"
                            className="text-green underline"
                            onClick={() => add(recipe, [field])}
                          >
                            {say(`accessPlan:forField.${recipe}`)}
                          </button>
                        ))}
                        <button type="button" className="text-green underline" onClick={() => note(field)}>
                          {say(noted.includes(field) ? 'accessPlan:noteNoMore' : 'accessPlan:noteReading')}
                        </button>
                      </span>
                    </td>
                  </tr>
                ) : null,
              ];
            })}
          </tbody>
        </table>
      </div>
      {rows.length === 0 ? <p className="py-2 text-soft">{say('accessPlan:noField')}</p> : null}
    </>
  );
}
