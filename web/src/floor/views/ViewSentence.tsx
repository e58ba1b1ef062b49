import type { AnswerOf } from '@tolvek/contract';
import type { Scope } from '@tolvek/core/expression';
import { OPTION_COLOURS, type OptionColour } from '@tolvek/core/register';
import { calledIn, MOST_OF_VIEW, type ViewDesign, type ViewMark, type ViewPart } from '@tolvek/core/view';
import { useId } from 'react';
import { ConditionBuilder } from '../../conditions/ConditionBuilder.tsx';
import { firstCondition } from '../../conditions/firstCondition.ts';
import { ColourMark } from '../../ui/ColourMark.tsx';
import { say, told } from '../../wire/words.ts';
import { Part } from './Part.tsx';
import { SubjectChoice } from './SubjectChoice.tsx';
import { groupedBy, orderedBy, subjectsFor } from './viewDraft.ts';

interface SentenceProps {
  readonly view: ViewDesign;
  readonly says: AnswerOf<'lookThrough'>['says'];
  readonly nameable: AnswerOf<'nameable'>;
  readonly registers: AnswerOf<'views'>['registers'];
  readonly scope: Scope;
  readonly set: (view: ViewDesign) => void;
  readonly look: (of: readonly string[]) => void;
}

const PARTS = ['of', 'when', 'groups', 'orders', 'marks'] as const;

/** A view as one sentence, each part of it pressed to change it. */
export function ViewSentence(props: SentenceProps) {
  const { says, view } = props;
  const saying = (part: ViewPart): string | undefined => {
    const found = says.find((each) => each.part === part);
    return found && told(found.words);
  };
  const shown = PARTS.filter((part) => view.of.length > 0 || part === 'of');
  return (
    <p className="my-2 flex flex-wrap items-baseline gap-x-1 text-[15.5px] leading-7">
      {shown.map((part, at) => {
        const words = saying(part);
        return (
          <span key={part}>
            <Part
              words={words ?? say(`views:add.${part}`)}
              isFaint={words === undefined}
              label={say(`views:edit.${part}`)}
            >
              <Editor part={part} {...props} />
            </Part>
            {at < shown.length - 1 ? ',' : '.'}
          </span>
        );
      })}
    </p>
  );
}

function Editor({ part, ...props }: SentenceProps & { part: (typeof PARTS)[number] }) {
  switch (part) {
    case 'of':
      return <Registers {...props} />;
    case 'when':
      return <When {...props} />;
    case 'groups':
      return <Groups {...props} />;
    case 'orders':
      return <Orders {...props} />;
    case 'marks':
      return <Marks {...props} />;
  }
}

function Registers({ view, registers, look }: SentenceProps) {
  return (
    <fieldset>
      <legend className="sr-only">{say('views:edit.of')}</legend>
      <span className="grid grid-cols-2 gap-x-5">
        {registers.map(({ key, name }) => (
          <label key={key} className="flex min-h-7 items-center gap-2">
            <input
              type="checkbox"
              className="accent-green"
              checked={view.of.includes(key)}
              onChange={({ target }) =>
                look(target.checked ? [...view.of, key] : view.of.filter((each) => each !== key))
              }
            />
            {name}
          </label>
        ))}
      </span>
      <p className="mt-2 text-[13px] text-soft">{say('views:registersHint')}</p>
    </fieldset>
  );
}

function When({ view, scope, set }: SentenceProps) {
  return (
    <fieldset>
      <legend className="sr-only">{say('views:edit.when')}</legend>
      {(['everyOne', 'onlyThose'] as const).map((each) => (
        <label key={each} className="flex min-h-7 items-center gap-2">
          <input
            type="radio"
            className="accent-green"
            checked={(view.when === '') === (each === 'everyOne')}
            onChange={() => set({ ...view, when: each === 'everyOne' ? '' : firstCondition(scope) })}
          />
          {say(`views:${each}`)}
        </label>
      ))}
      {view.when === '' ? null : (
        <div className="mt-2">
          <ConditionBuilder condition={view.when} scope={scope} set={(when) => set({ ...view, when })} />
        </div>
      )}
    </fieldset>
  );
}

function Groups({ view, nameable: { fields, closed }, set }: SentenceProps) {
  const id = useId();
  const among = subjectsFor('groups', fields, closed);
  const places = view.groups.length < MOST_OF_VIEW.groups ? [...view.groups, ''] : view.groups;
  return (
    <div className="grid grid-cols-[6rem_1fr] items-center gap-x-4 gap-y-2">
      {places.map((subject, place) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: a group is known by its place
        <span key={place} className="contents">
          <label htmlFor={`${id}-${place}`} className="text-soft">
            {say(place === 0 ? 'views:edit.groups' : 'views:thenBy')}
          </label>
          <span>
            <SubjectChoice
              id={`${id}-${place}`}
              value={subject}
              among={among.filter((each) => each === subject || !view.groups.includes(each))}
              fields={fields}
              none={say('views:byNothing')}
              choose={(chosen) => set(groupedBy(view, place, chosen))}
            />
          </span>
        </span>
      ))}
    </div>
  );
}

function Orders({ view, nameable: { fields, closed }, set }: SentenceProps) {
  const id = useId();
  const among = subjectsFor('orders', fields, closed);
  const isNamed = (subject: string): boolean => view.orders.some(({ of }) => of === subject);
  const next = among.find((subject) => !isNamed(subject));
  return (
    <>
      {view.orders.map((order, place) => (
        <p key={order.of} className="mb-2 flex flex-wrap items-center gap-3">
          <label htmlFor={`${id}-${place}`} className="w-24 text-soft">
            {say(place === 0 ? 'views:edit.orders' : 'views:thenBy')}
          </label>
          <SubjectChoice
            id={`${id}-${place}`}
            value={order.of}
            among={among.filter((each) => each === order.of || !isNamed(each))}
            fields={fields}
            none={null}
            choose={(of) => set(orderedBy(view, place, { ...order, of }))}
          />
          <select
            className="input w-auto"
            aria-label={told(calledIn(order.of, fields))}
            value={order.down ? 'down' : 'up'}
            onChange={({ target }) => set(orderedBy(view, place, { ...order, down: target.value === 'down' }))}
          >
            <option value="up">{say('views:up')}</option>
            <option value="down">{say('views:down')}</option>
          </select>
          <button
            type="button"
            className="size-[24px] flex-none text-soft hover:text-brick"
            aria-label={say('views:removeOrder', { what: told(calledIn(order.of, fields)) })}
            onClick={() => set(orderedBy(view, place, null))}
          >
            ×
          </button>
        </p>
      ))}
      {next !== undefined && view.orders.length < MOST_OF_VIEW.orders ? (
        <button
          type="button"
          className="text-green underline"
          onClick={() => set(orderedBy(view, view.orders.length, { of: next, down: false }))}
        >
          {say('views:addOrder')}
        </button>
      ) : null}
    </>
  );
}

function Marks({ view, scope, set }: SentenceProps) {
  const id = useId();
  const put = (place: number, mark: ViewMark | null): void =>
    set({
      ...view,
      marks: [...view.marks.slice(0, place), ...(mark ? [mark] : []), ...view.marks.slice(place + 1)],
    });
  return (
    <>
      {view.marks.map((mark, place) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: a mark is known by its place
        <div key={place} className="mb-4 border-b border-rule pb-3">
          <p className="mb-2 flex flex-wrap items-center gap-3">
            <ColourMark colour={mark.colour} />
            <select
              className="input w-auto"
              aria-label={say('views:markColour')}
              value={mark.colour}
              onChange={({ target }) => put(place, { ...mark, colour: target.value as OptionColour })}
            >
              {OPTION_COLOURS.map((colour) => (
                <option key={colour} value={colour}>
                  {say(`views:colour.${colour}`)}
                </option>
              ))}
            </select>
            <label htmlFor={`${id}-${place}`} className="text-soft">
              {say('views:markWord')}
            </label>
            <input
              id={`${id}-${place}`}
              className="input w-44"
              maxLength={60}
              placeholder={say('views:markWordHint')}
              value={mark.word}
              onChange={({ target }) => put(place, { ...mark, word: target.value })}
            />
            <button
              type="button"
              className="size-[24px] flex-none text-soft hover:text-brick"
              aria-label={say('views:removeMark', { word: mark.word })}
              onClick={() => put(place, null)}
            >
              ×
            </button>
          </p>
          <ConditionBuilder condition={mark.when} scope={scope} set={(when) => put(place, { ...mark, when })} />
        </div>
      ))}
      {view.marks.length < MOST_OF_VIEW.marks ? (
        <button
          type="button"
          className="text-green underline"
          onClick={() =>
            put(view.marks.length, {
              when: firstCondition(scope),
              colour: OPTION_COLOURS[view.marks.length % OPTION_COLOURS.length] ?? 'sea',
              word: '',
            })
          }
        >
          {say('views:addMark')}
        </button>
      ) : null}
    </>
  );
}
