import type { OfferCard } from '@tolvek/core/access';
import type { KnownRequest, RawAnswer } from '@tolvek/core/register';
import { useEffect, useState } from 'react';
import { say, told } from '../wire/words.ts';
import { type InputProps, typed, useAnswersBeside, useAroundFields } from './input.ts';

/** How long typing rests before what fits is looked for, ms. */
const REST = 220;
/** With more than these there is a line to look for one by its name. */
const FEW = 6;

interface Shown {
  readonly offers: readonly KnownRequest[];
  readonly cards: Readonly<Record<string, OfferCard>>;
  readonly more: boolean;
}

/** Asks the house what can be chosen, whenever an answer changes that it hangs on. */
function useCards(field: string, find: string): { readonly shown: Shown | null; readonly failed: boolean } {
  const { offers: ask } = useAroundFields();
  const beside = useAnswersBeside(field);
  const [shown, setShown] = useState<Shown | null>(null);
  const [failed, setFailed] = useState(false);
  // biome-ignore lint/correctness/useExhaustiveDependencies: what can be chosen hangs on the answers beside it
  useEffect(() => {
    if (!ask) return;
    let wanted = true;
    const asking = setTimeout(
      () =>
        ask(field, find).then(
          (found) => {
            if (!wanted) return;
            setShown(found);
            setFailed(false);
          },
          () => wanted && setFailed(true),
        ),
      shown === null ? 0 : REST,
    );
    return () => {
      wanted = false;
      clearTimeout(asking);
    };
  }, [ask, field, find, beside]);
  return { shown, failed };
}

/** What was chosen of a reference, as ids. */
const chosenIn = (value: RawAnswer): readonly string[] =>
  Array.isArray(value) ? (value as readonly string[]) : [typed(value)].filter(Boolean);

/**
 * What a reference offers, entry by entry: picture, name and facts, to be chosen by pressing one. What is not to be had just
 * now stands there too, with the reason, where the form says so.
 */
export default function Cards(props: InputProps<'reference'> | InputProps<'references'>) {
  const { id, fieldKey, type, describedBy, invalid, disabled, onBlur } = props;
  const { references, know, cardPicture } = useAroundFields();
  const [find, setFind] = useState('');
  const { shown, failed } = useCards(fieldKey, find.trim());
  const chosen = chosenIn(props.value);
  const isOne = type.kind === 'reference';
  const offers = [...(shown?.offers ?? [])].sort((a, b) => Number(isGone(a)) - Number(isGone(b)));
  function isGone({ id: each }: KnownRequest): boolean {
    return (shown?.cards[each]?.unavailable ?? null) !== null;
  }
  // What was chosen stays in view, whatever is looked for.
  const elsewhere = chosen.flatMap((each) =>
    offers.some((offer) => offer.id === each) ? [] : (references.find((known) => known.id === each) ?? []),
  );
  const put = (request: KnownRequest): void => {
    const { id: one } = request;
    know?.(request);
    if (isOne) props.onChange(one);
    else props.onChange(chosen.includes(one) ? chosen.filter((each) => each !== one) : [...chosen, one]);
  };
  const looks = find !== '' || (shown !== null && (shown.more || shown.offers.length > FEW));
  return (
    // biome-ignore lint/a11y/useSemanticElements: the question above it is its label, which a fieldset’s legend can’t be here
    <div
      role="group"
      aria-labelledby={`${id}-label`}
      aria-describedby={describedBy}
      aria-busy={shown === null && !failed}
    >
      {looks ? (
        <input
          type="search"
          className="input mb-2 max-w-80"
          aria-label={say('desk:findCard')}
          placeholder={say('desk:typeToFind')}
          value={find}
          onChange={(event) => setFind(event.target.value)}
        />
      ) : null}
      {elsewhere.map((request) => (
        <p key={request.id} className="mb-2 flex items-baseline gap-3 border-l-[3px] border-green pl-3">
          <span className="min-w-0 flex-1">{say('desk:cardChosen', { name: request.label })}</span>
          <button
            type="button"
            className="min-h-6 text-[0.88em] text-brick"
            disabled={disabled}
            onClick={() => props.onChange(isOne ? '' : chosen.filter((each) => each !== request.id))}
          >
            {say('desk:removeOne', { label: request.label })}
          </button>
        </p>
      ))}
      <ul className="@container border-t border-rule">
        {offers.map((request, index) => (
          <Card
            key={request.id}
            {...{ request, invalid, onBlur }}
            name={id}
            inputId={index === 0 ? id : undefined}
            isOne={isOne}
            card={shown?.cards[request.id]}
            isChosen={chosen.includes(request.id)}
            disabled={disabled ?? false}
            picture={cardPicture && ((file) => cardPicture(fieldKey, file))}
            choose={() => put(request)}
          />
        ))}
      </ul>
      <p role="status" className="mt-1 text-[0.88em] text-soft empty:hidden">
        {noteOf(shown, find, failed)}
      </p>
    </div>
  );
}

/** What is said below the entries. */
function noteOf(shown: Shown | null, find: string, failed: boolean): string {
  if (failed) return say('desk:cannotSearch');
  if (shown === null) return say('desk:searching');
  if (shown.offers.length === 0) return say(find === '' ? 'desk:nothingOffered' : 'desk:nothingFound');
  return shown.more ? say('desk:typeForMore') : '';
}

interface CardProps {
  readonly request: KnownRequest;
  readonly card: OfferCard | undefined;
  readonly name: string;
  readonly inputId: string | undefined;
  readonly isOne: boolean;
  readonly isChosen: boolean;
  readonly invalid: boolean;
  readonly disabled: boolean;
  readonly onBlur: (() => void) | undefined;
  readonly picture: ((file: string) => string) | null;
  readonly choose: () => void;
}

/** One entry: what is pressed, its picture, its name, and what is said of it. */
function Card({
  request,
  card,
  name,
  inputId,
  isOne,
  isChosen,
  invalid,
  disabled,
  onBlur,
  picture,
  choose,
}: CardProps) {
  const gone = card?.unavailable ?? null;
  const isShut = disabled || (gone !== null && !isChosen);
  const at = card?.picture && picture ? picture(card.picture) : null;
  return (
    <li className="border-b border-rule">
      <label
        className={`flex min-h-[52px] flex-wrap items-start gap-3 @[18rem]:flex-nowrap border-l-[3px] py-2.5 pr-2 pl-2.5 ${isShut ? '' : 'cursor-pointer hover:bg-green-wash'} ${isChosen ? 'border-l-green bg-green-wash' : 'border-l-transparent'}`}
      >
        <input
          type={isOne ? 'radio' : 'checkbox'}
          className="mt-1 size-4 shrink-0 accent-green"
          id={inputId}
          name={name}
          checked={isChosen}
          disabled={isShut}
          aria-invalid={invalid}
          onBlur={onBlur}
          onChange={choose}
        />
        {at === null ? null : (
          <img
            src={at}
            alt=""
            loading="lazy"
            width={140}
            height={105}
            className={`aspect-[4/3] w-[104px] shrink-0 border border-rule object-cover @md:w-[140px] ${gone === null ? '' : 'opacity-50 grayscale'}`}
          />
        )}
        <span className={`min-w-0 flex-1 wrap-break-word ${at === null ? '' : 'basis-full @[18rem]:basis-0'}`}>
          <span className={`block font-serif text-[1.1em] ${gone === null ? '' : 'text-soft'}`}>{request.label}</span>
          {gone === null ? null : <span className="block text-[0.93em] text-brick">{whyNot(gone)}</span>}
          {(card?.facts ?? []).map(({ label, words }) => (
            <span key={label} className="block text-[0.93em]">
              <span className="text-soft">{label}:</span> {told(words)}
            </span>
          ))}
        </span>
      </label>
    </li>
  );
}

/** Why an entry can’t be chosen just now: what of it is in the way. */
function whyNot(facts: NonNullable<OfferCard['unavailable']>): string {
  if (facts.length === 0) return say('desk:notToBeHad');
  return say('desk:notToBeHadAs', {
    facts: facts.map(({ label, words }) => (label === '' ? told(words) : `${label}: ${told(words)}`)),
  });
}
