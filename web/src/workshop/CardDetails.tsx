import type { Field, Kind, OfferCards } from '@tolvek/core/register';
import { useId } from 'react';
import { Boxes } from '../ui/Boxes.tsx';
import { say } from '../wire/words.ts';
import { toggled } from './access/planEdits.ts';
import { without } from './LimitInput.tsx';

type Referring = Extract<Kind, { kind: 'reference' | 'references' }>;

const GONE = ['grey', 'absent'] as const satisfies readonly OfferCards['unavailable'][];

/** What people choose by: names they look for, or entries with a picture and facts. */
export function CardDetails({
  type,
  open,
  set,
}: {
  type: Referring;
  /** The fields that may be told of. */
  open: readonly Field[];
  set: (type: Referring) => void;
}) {
  const id = useId();
  const { cards } = type;
  const pictures = open.filter((field) => field.type.kind === 'files');
  const facts = open.filter((field) => field.type.kind !== 'files' && field.type.kind !== 'line-items');
  const put = (next: OfferCards | undefined): void => set(without({ ...type, cards: next }) as Referring);
  const begin = (): OfferCards => ({
    ...(pictures[0] ? { picture: pictures[0].key } : {}),
    facts: facts
      .filter(({ key }) => !type.shows.includes(key))
      .slice(0, 3)
      .map(({ key }) => key),
    unavailable: 'grey',
  });
  return (
    <div>
      <label className="flex items-center gap-2 text-ink">
        <input
          type="checkbox"
          className="accent-green"
          checked={cards !== undefined}
          onChange={({ target: { checked } }) => put(checked ? begin() : undefined)}
        />
        {say('workshop:byCards')}
      </label>
      {cards ? (
        <div className="mt-1.5 ml-6 grid grid-cols-[auto_1fr] items-start gap-x-3 gap-y-2">
          <label htmlFor={`${id}-picture`} className="pt-1.5">
            {say('workshop:cardPicture')}
          </label>
          <span>
            <select
              id={`${id}-picture`}
              className="input w-auto"
              value={cards.picture ?? ''}
              onChange={({ target: { value } }) => {
                const { picture: _, ...rest } = cards;
                put(value === '' ? rest : { ...rest, picture: value });
              }}
            >
              <option value="">{say('workshop:noCardPicture')}</option>
              {pictures.map(({ key, label }) => (
                <option key={key} value={key}>
                  {label}
                </option>
              ))}
            </select>
            {pictures.length === 0 ? (
              <span className="mt-1 block text-[12.5px]">{say('workshop:noPictureFields')}</span>
            ) : null}
          </span>
          <span className="pt-0.5">{say('workshop:cardFacts')}</span>
          <fieldset className="text-ink">
            <legend className="sr-only">{say('workshop:cardFacts')}</legend>
            <Boxes
              all={facts}
              chosen={cards.facts}
              toggle={(key) => put({ ...cards, facts: toggled(cards.facts, key) })}
            />
          </fieldset>
          {type.offered === undefined ? null : (
            <>
              <label htmlFor={`${id}-gone`} className="pt-1.5">
                {say('workshop:cardGone')}
              </label>
              <select
                id={`${id}-gone`}
                className="input w-auto"
                value={cards.unavailable}
                onChange={({ target: { value } }) => put({ ...cards, unavailable: value as OfferCards['unavailable'] })}
              >
                {GONE.map((each) => (
                  <option key={each} value={each}>
                    {say(`workshop:cardGone.${each}`)}
                  </option>
                ))}
              </select>
            </>
          )}
        </div>
      ) : null}
    </div>
  );
}
