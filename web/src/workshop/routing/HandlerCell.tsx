import type { AnswerOf } from '@tolvek/contract';
import { HANDLER_WAYS, type HandlerRule, type HandlerWay } from '@tolvek/core/assignment';
import type { Field } from '@tolvek/core/register';
import { Popover } from 'radix-ui';
import { say } from '../../wire/words.ts';
import { MoveButtons } from '../MoveButtons.tsx';
import { addWay, moveWay, removeWay, setMost, setWay, wayOf, withMonths } from './handlers.ts';

interface HandlerCellProps {
  readonly name: string;
  readonly rule: HandlerRule | undefined;
  readonly people: AnswerOf<'form'>['people'];
  readonly fields: readonly Field[];
  readonly skills: AnswerOf<'form'>['skills'];
  readonly rosters: AnswerOf<'form'>['rosters'];
  readonly set: (rule: HandlerRule | undefined) => void;
}

/** How a row finds its handler, in words; pressed, the ways it tries, one after the other. */
export function HandlerCell({ name, rule, people, fields, skills, rosters: known, set }: HandlerCellProps) {
  const persons = fields.filter(({ type }) => type.kind === 'person');
  const ways = rule?.ways ?? [];
  const rosters = known.map(({ key, name: label }) => ({ key, label }));
  const saidBy = (way: HandlerWay): string => {
    if (way.by === 'person') return people.find(({ key }) => key === way.person)?.label ?? say('workshop:personGone');
    if (way.by === 'field') return persons.find(({ key }) => key === way.field)?.label ?? say('workshop:fieldGone');
    if (way.by === 'duty') return dutyInWords(way, rosters);
    return way.by === 'skill' ? skillInWords(way, skills ?? []) : say(`workshop:handler.${way.by}`);
  };
  const words = ways.length === 0 ? say('workshop:teamTakes') : ways.map(saidBy).join(', ');
  const offered = HANDLER_WAYS.flatMap((by) => wayOf(by, persons, people, skills ?? [], rosters) ?? []);
  return (
    <Popover.Root>
      <Popover.Trigger aria-label={`${name}: ${words}`} className="max-w-72 flex-none truncate text-left text-[12.5px]">
        <span className="text-soft">{say('workshop:handledBy')}</span>{' '}
        <span className="text-green underline">{words}</span>
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          sideOffset={4}
          align="end"
          collisionPadding={12}
          aria-label={name}
          className="z-20 w-[28rem] max-w-[calc(100vw-24px)] rounded-md border border-rule-strong bg-sheet p-4 text-[14px] shadow-lg"
        >
          <p className="mb-2 font-semibold">{name}</p>
          {ways.length === 0 ? <p className="mb-2 text-soft">{say('workshop:teamTakesHint')}</p> : null}
          <ol>
            {ways.map((way, place) => (
              // biome-ignore lint/suspicious/noArrayIndexKey: ways stand in their order.
              <li key={place} className="mb-1.5 flex items-center gap-2">
                <span className="w-24 shrink-0 text-soft">
                  {say(place === 0 ? 'workshop:wayFirst' : 'workshop:wayElse')}
                </span>
                <span className="min-w-0 flex-1">
                  {way.by === 'person' ? (
                    <Chosen
                      name={say('workshop:handler.person')}
                      value={way.person}
                      offered={people}
                      gone={say('workshop:personGone')}
                      choose={(person) => set(setWay(rule, place, { by: 'person', person }))}
                    />
                  ) : way.by === 'field' ? (
                    <Chosen
                      name={say('workshop:handler.field')}
                      value={way.field}
                      offered={persons}
                      gone={say('workshop:fieldGone')}
                      choose={(field) => set(setWay(rule, place, { by: 'field', field }))}
                    />
                  ) : way.by === 'skill' ? (
                    <SkillOf way={way} skills={skills ?? []} set={(to) => set(setWay(rule, place, to))} />
                  ) : way.by === 'duty' ? (
                    <DutyOf way={way} rosters={rosters} set={(to) => set(setWay(rule, place, to))} />
                  ) : (
                    saidBy(way)
                  )}
                </span>
                <MoveButtons
                  index={place}
                  of={ways.length}
                  words={[
                    say('workshop:wayEarlier', { way: saidBy(way) }),
                    say('workshop:wayLater', { way: saidBy(way) }),
                  ]}
                  move={(by) => set(moveWay(rule, place, by))}
                />
                <button
                  type="button"
                  className="size-6 shrink-0 text-soft hover:text-brick"
                  aria-label={say('workshop:dropWay', { way: saidBy(way) })}
                  onClick={() => set(removeWay(rule, place))}
                >
                  ×
                </button>
              </li>
            ))}
          </ol>
          <select
            className="input mt-1 w-auto py-1"
            aria-label={say('workshop:addWay')}
            value=""
            onChange={({ target: { value } }) => {
              const way = offered.find(({ by }) => by === value);
              if (way) set(addWay(rule, way));
            }}
          >
            <option value="">{say('workshop:addWay')}</option>
            {offered.map(({ by }) => (
              <option key={by} value={by}>
                {say(`workshop:handler.${by}`)}
              </option>
            ))}
          </select>
          {rule ? (
            <label className="mt-3 flex items-center gap-2">
              {say('workshop:handlesMost')}
              <input
                type="number"
                min={1}
                max={1_000}
                className="input w-20 py-1"
                placeholder="—"
                value={rule.most ?? ''}
                onChange={({ target: { value } }) => set(setMost(rule, value === '' ? null : Number(value)))}
              />
              {say('workshop:openRequests')}
            </label>
          ) : null}
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}

type SkillWay = Extract<HandlerWay, { by: 'skill' }>;
type DutyWay = Extract<HandlerWay, { by: 'duty' }>;
type Skills = readonly { readonly key: string; readonly label: string }[];

/** A skill that is asked for, in words. */
function skillInWords({ skill: key, least, months }: SkillWay, skills: Skills): string {
  const skill = skills.find((each) => each.key === key)?.label ?? say('workshop:skillGone');
  return months === undefined
    ? say('workshop:skillLeast', { skill, least })
    : say('workshop:skillChecked', { skill, least, count: months });
}

/** Which skill, at which level, and how lately it was checked. */
const SkillOf = ({ way, skills, set }: { way: SkillWay; skills: Skills; set: (way: SkillWay) => void }) => (
  <span className="flex flex-wrap items-center gap-1.5">
    <Chosen
      name={say('workshop:skillAsked')}
      value={way.skill}
      offered={skills}
      gone={say('workshop:skillGone')}
      choose={(skill) => set({ ...way, skill })}
    />
    {say('workshop:atLevel')}
    <input
      type="number"
      min={0}
      max={1_000}
      className="input w-16 py-1"
      aria-label={say('workshop:skillLevel')}
      value={way.least}
      onChange={({ target }) => set({ ...way, least: Math.min(1_000, Math.max(0, Number(target.value) || 0)) })}
    />
    {say('workshop:orMoreChecked')}
    <input
      type="number"
      min={1}
      max={600}
      className="input w-16 py-1"
      placeholder="—"
      aria-label={say('workshop:skillMonths')}
      value={way.months ?? ''}
      onChange={({ target: { value } }) => set(withMonths(way, value === '' ? null : Number(value)))}
    />
    {say('workshop:months')}
  </span>
);

/** By which roster somebody is on duty, in words. */
function dutyInWords({ roster: key, orNext }: DutyWay, rosters: Skills): string {
  const roster = rosters.find((each) => each.key === key)?.label ?? say('workshop:rosterGone');
  return say(orNext ? 'workshop:onDutyOrNext' : 'workshop:onDutyBy', { roster });
}

/** Which roster, and whether whoever comes next has it where nobody is on duty. */
const DutyOf = ({ way, rosters, set }: { way: DutyWay; rosters: Skills; set: (way: DutyWay) => void }) => (
  <span className="flex flex-wrap items-center gap-1.5">
    {say('workshop:handler.duty')}
    <Chosen
      name={say('workshop:rosterAsked')}
      value={way.roster}
      offered={rosters}
      gone={say('workshop:rosterGone')}
      choose={(roster) => set({ ...way, roster })}
    />
    <label className="flex items-center gap-1.5">
      <input
        type="checkbox"
        className="accent-green"
        checked={way.orNext ?? false}
        onChange={({ target }) => {
          const { orNext: _, ...now } = way;
          set(target.checked ? { ...now, orNext: true } : now);
        }}
      />
      {say('workshop:orWhoComesNext')}
    </label>
  </span>
);

interface ChosenProps {
  readonly name: string;
  readonly value: string;
  readonly offered: readonly { readonly key: string; readonly label: string }[];
  readonly gone: string;
  readonly choose: (key: string) => void;
}

/** Whom or what a way names; what is not there any more stays shown until another is chosen. */
const Chosen = ({ name, value, offered, gone, choose }: ChosenProps) => (
  <select className="input py-1" aria-label={name} value={value} onChange={({ target }) => choose(target.value)}>
    {offered.some(({ key }) => key === value) ? null : <option value={value}>{gone}</option>}
    {offered.map(({ key, label }) => (
      <option key={key} value={key}>
        {label}
      </option>
    ))}
  </select>
);
