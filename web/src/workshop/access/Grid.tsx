import { ACTIVITIES, type Doing } from '@tolvek/core/access';
import { columnNamed, columnsOf, fieldKeyOf, partsOf } from '@tolvek/core/register';
import { useEffect, useRef, useState } from 'react';
import { useSearchParams } from 'react-router';
import { say, told } from '../../wire/words.ts';
import { workshopApi } from '../endpoints.ts';
import { type One, OnePerson } from './Chosen.tsx';
import { type Cells, FieldRow, type RowProps, TogetherRow } from './GridRows.tsx';
import type { Plan } from './usePlan.ts';

const PICKS = 'border-green border-b bg-transparent font-semibold text-green';

interface GridProps extends Pick<RowProps, 'add' | 'change' | 'noted' | 'note'> {
  readonly plan: Plan;
}

/**
 * What comes of a plan, field by field for each group, as fields stand together in their forms: a cell is pressed for its
 * reason, and for a rule about its field or about all that stand with it.
 */
export function Grid({ plan, ...work }: GridProps) {
  const { fields, draft, stages } = plan;
  const [stage, setStage] = useState('');
  const [activity, setActivity] = useState<Doing | ''>('');
  const [who, setWho] = useState('');
  const [person, setPerson] = useState<One | null>(null);
  const one = who === 'person' && person ? person : null;
  const isWhole = stage === '' && activity === '' && !one;
  const { data: part } = workshopApi.useAccessPlanGridQuery(
    {
      key: plan.key,
      query: {
        ...(stage === '' ? {} : { stage }),
        ...(activity === '' ? {} : { activity }),
        ...(one ? { person: one[0] } : {}),
      },
    },
    { skip: isWhole },
  );
  const grid = isWhole ? plan.grid : (part ?? plan.grid);
  // Whoever comes from a field looks at it first.
  const asked = useSearchParams()[0].get('field');
  const parts = partsOf(fields);
  const from = parts.find(({ key }) => key === asked)?.label ?? '';
  const [find, setFind] = useState(from);
  const head = useRef<HTMLHeadingElement>(null);
  useEffect(() => {
    if (from !== '') head.current?.scrollIntoView({ block: 'start' });
  }, [from]);
  const [open, setOpen] = useState<readonly [string, number] | null>(null);
  const [spread, setSpread] = useState<readonly string[]>([]);
  const looked = find.trim().toLowerCase();
  const labelOf = (key: string): string => parts.find((field) => field.key === key)?.label ?? key;
  const rowOf = new Map(grid.rows.map((row) => [row.field, row.cells]));
  const last = grid.seats.length - 1;
  const seats = grid.seats.map((_, index) => index);
  const shown = one
    ? part
      ? [last]
      : []
    : seats.filter((index) => who === '' || who === 'person' || who === `${index}`);
  const isShown = (key: string): boolean => {
    if (looked !== '') return labelOf(key).toLowerCase().includes(looked);
    const lines = fieldKeyOf(key);
    if (lines === key || spread.includes(lines)) return true;
    // A column that is otherwise than its lines is always there.
    const [own, whole] = [rowOf.get(key), rowOf.get(lines)];
    const field = fields.find((each) => each.key === lines);
    // What is computed is never changed.
    const most = field && columnNamed(field, key)?.formula !== undefined ? 'read' : 'write';
    const levels = (cell: Cells[number] | undefined): string =>
      [cell?.level, cell?.most].map((level) => (level === 'write' ? most : level)).join();
    return shown.some((seat) => levels(own?.[seat]) !== levels(whole?.[seat]));
  };
  const sections = plan.together.flatMap((each) => {
    const keys = each.fields
      .flatMap((key) => fields.filter((field) => field.key === key))
      .flatMap((field) => [field.key, ...columnsOf(field).map(({ key }) => key)])
      .filter(isShown);
    return keys.length > 0 ? [{ ...each, keys }] : [];
  });
  const row: RowProps = {
    ...{ seats: grid.seats, shown, labelOf, rules: draft.rules, open, setOpen, unplaced: plan.unplaced },
    ...work,
  };
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
          {say('accessPlan:gridWho')}{' '}
          <select className={PICKS} value={who} onChange={(event) => setWho(event.target.value)}>
            <option value="">{say('accessPlan:anybody')}</option>
            {plan.grid.seats.map((seat, index) => (
              // biome-ignore lint/suspicious/noArrayIndexKey: it is the seat’s place that is chosen
              <option key={index} value={`${index}`}>
                {told(seat)}
              </option>
            ))}
            <option value="person">{say('accessPlan:onePersonMore')}</option>
          </select>
        </label>
        <label>
          {say('accessPlan:whileAt')}{' '}
          <select className={PICKS} value={stage} onChange={(event) => setStage(event.target.value)}>
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
            className={PICKS}
            value={activity}
            onChange={(event) => setActivity(event.target.value as Doing | '')}
          >
            <option value="">{say('accessPlan:anything')}</option>
            {ACTIVITIES.map((each) => (
              <option key={each} value={each}>
                {say(`accessPlan:activity.${each}`)}
              </option>
            ))}
            <option value="asking">{say('accessPlan:activityAsking')}</option>
          </select>
        </label>
        <span>{say('accessPlan:gridHint')}</span>
      </p>
      {who === 'person' ? (
        <div className="mt-1 flex">
          <OnePerson id="grid-person" person={person} set={setPerson} />
        </div>
      ) : null}
      <div className="overflow-x-auto">
        <table className="mt-1 w-full border-collapse">
          <thead>
            <tr className="border-b border-rule-strong text-left align-bottom text-[11.5px] text-soft">
              <th scope="col" className="py-1.5 pr-3 font-semibold">
                {say('workshop:field')}
              </th>
              {shown.map((seat) => (
                <th key={seat} scope="col" className="py-1.5 pr-3 font-semibold first-letter:uppercase">
                  {told(grid.seats[seat] ?? '')}
                </th>
              ))}
            </tr>
          </thead>
          {sections.map(({ keys, ...section }) => (
            <tbody key={`${section.form} ${section.title} ${section.kind}`}>
              {plan.together.length > 1 ? (
                <TogetherRow
                  {...row}
                  section={section}
                  cells={section.fields.flatMap((key) => {
                    const cells = rowOf.get(key);
                    return cells ? [cells] : [];
                  })}
                />
              ) : null}
              {keys.map((key) => {
                const field = fields.find((each) => each.key === key);
                return (
                  <FieldRow
                    key={key}
                    {...row}
                    field={key}
                    cells={rowOf.get(key) ?? []}
                    columns={
                      field && looked === '' && columnsOf(field).length > 0
                        ? {
                            isOpen: spread.includes(key),
                            toggle: () =>
                              setSpread(
                                spread.includes(key) ? spread.filter((each) => each !== key) : [...spread, key],
                              ),
                          }
                        : null
                    }
                  />
                );
              })}
            </tbody>
          ))}
        </table>
      </div>
      {sections.length === 0 ? <p className="py-2 text-soft">{say('accessPlan:noField')}</p> : null}
    </>
  );
}
