import { type Field, type Kind, type Level, numberPrefix, numberWith, placesOf } from '@tolvek/core/register';
import type { ReactNode } from 'react';
import { say } from '../wire/words.ts';
import type { KindAround } from './editing.ts';
import { GroupOnTheSpot } from './groundwork/NewGroup.tsx';
import { LimitInput, without } from './LimitInput.tsx';
import { LineColumns } from './LineColumns.tsx';
import { OptionsEditor } from './OptionsEditor.tsx';
import { ReferenceDetails } from './ReferenceDetails.tsx';
import { TermDetails } from './TermDetails.tsx';

interface KindDetailsProps {
  readonly field: Pick<Field, 'key' | 'label' | 'type'>;
  readonly around: KindAround;
  readonly setType: (type: Kind) => void;
}

/**
 * What a kind lets one set: options, places, unit, limits, the scale, who can be picked, the
 * columns of line items.
 */
export function KindDetails({ field, around, setType }: KindDetailsProps) {
  const { fields, groups, vocabularies, editing } = around;
  const { type } = field;
  switch (type.kind) {
    case 'choice':
      return (
        <Line name={say('workshop:optionsName')}>
          <OptionsEditor options={type.options} set={(options) => setType({ ...type, options })} />
          <SomethingElse type={type} set={setType} />
        </Line>
      );
    case 'choices':
      return (
        <>
          <Line name={say('workshop:optionsName')}>
            <OptionsEditor options={type.options} set={(options) => setType({ ...type, options })} />
            <SomethingElse type={type} set={setType} />
          </Line>
          <Line name={say('workshop:howManyName')}>
            <span className="flex flex-wrap gap-4">
              <LimitInput
                label={say('workshop:atLeast')}
                width="w-16"
                value={type.least}
                set={(least) => setType(without({ ...type, least }) as Kind)}
              />
              <LimitInput
                label={say('workshop:atMost')}
                width="w-16"
                value={type.most}
                set={(most) => setType(without({ ...type, most }) as Kind)}
              />
            </span>
          </Line>
        </>
      );
    case 'level':
      return (
        <Line name={say('workshop:scaleName')}>
          <LevelsEditor levels={type.levels} set={(levels) => setType({ ...type, levels })} />
        </Line>
      );
    case 'number':
      return (
        <Line name={say('workshop:numberName')}>
          <span className="flex flex-wrap items-center gap-x-4 gap-y-2">
            <LimitInput
              label={say('workshop:decimals')}
              width="w-14"
              value={type.places}
              set={(places = 0) => setType({ ...type, places: Math.min(6, Math.max(0, Math.trunc(places))) })}
            />
            <label className="flex items-center gap-2">
              {say('workshop:unit')}{' '}
              <input
                className="input w-20"
                value={type.unit ?? ''}
                onChange={(event) => setType({ ...type, unit: event.target.value })}
              />
            </label>
            <LimitInput
              label={say('workshop:lowest')}
              width="w-20"
              value={type.least}
              set={(least) => setType(without({ ...type, least }) as Kind)}
            />
            <LimitInput
              label={say('workshop:highest')}
              width="w-20"
              value={type.most}
              set={(most) => setType(without({ ...type, most }) as Kind)}
            />
          </span>
        </Line>
      );
    case 'money':
      return (
        <Line name={say('workshop:currencyName')}>
          <span className="flex flex-wrap items-center gap-x-4 gap-y-2">
            <input
              aria-label={say('workshop:currency')}
              className="input w-20"
              value={type.currency}
              maxLength={3}
              onChange={(event) => setType(inCurrency(type, event.target.value.toUpperCase()))}
            />
            <LimitInput
              label={say('workshop:lowest')}
              value={amount(type.least, type.currency)}
              set={(least) => setType(without({ ...type, least: minor(least, type.currency) }) as Kind)}
            />
            <LimitInput
              label={say('workshop:highest')}
              value={amount(type.most, type.currency)}
              set={(most) => setType(without({ ...type, most: minor(most, type.currency) }) as Kind)}
            />
          </span>
        </Line>
      );
    case 'date':
    case 'date-time': {
      const others = fields.filter(
        (each) => each.key !== field.key && (each.type.kind === 'date' || each.type.kind === 'date-time'),
      );
      const isFrom = type.kind === 'date' ? type.notBeforeToday : type.notBeforeNow;
      return (
        <Line name={say('workshop:earliestName')}>
          <span className="flex flex-wrap items-center gap-x-4 gap-y-2">
            <label className="flex items-center gap-2 text-ink">
              <input
                type="checkbox"
                className="accent-green"
                checked={isFrom ?? false}
                onChange={(event) =>
                  setType(
                    type.kind === 'date'
                      ? { ...type, notBeforeToday: event.target.checked }
                      : { ...type, notBeforeNow: event.target.checked },
                  )
                }
              />
              {type.kind === 'date' ? say('workshop:todayOrLater') : say('workshop:nowOrLater')}
            </label>
            {others.length > 0 ? (
              <label className="flex items-center gap-2">
                {say('workshop:notBefore')}
                <select
                  className="input w-auto"
                  value={type.notBefore ?? ''}
                  onChange={(event) =>
                    setType(without({ ...type, notBefore: event.target.value || undefined }) as Kind)
                  }
                >
                  <option value="">{say('workshop:nothing')}</option>
                  {others.map((other) => (
                    <option key={other.key} value={other.key}>
                      {other.label}
                    </option>
                  ))}
                </select>
              </label>
            ) : null}
          </span>
        </Line>
      );
    }
    case 'person':
    case 'people':
      return (
        <Line name={say('workshop:pickedFromName')}>
          <span className="flex flex-wrap gap-x-4 gap-y-1">
            {groups.map((group) => (
              <label key={group.key} className="flex items-center gap-1.5 text-ink">
                <input
                  type="checkbox"
                  className="accent-green"
                  checked={type.from.includes(group.key)}
                  onChange={() =>
                    setType({
                      ...type,
                      from: type.from.includes(group.key)
                        ? type.from.filter((each) => each !== group.key)
                        : [...type.from, group.key],
                    })
                  }
                />
                {group.name}
              </label>
            ))}
            <span className="w-full text-[12.5px]">
              {type.from.length === 0 ? say('workshop:allStaffPicked') : say('workshop:groupsPicked')}
            </span>
            <GroupOnTheSpot made={(key) => setType({ ...type, from: [...type.from, key] })} />
          </span>
        </Line>
      );
    case 'text':
    case 'long-text':
      return (
        <Line name={say('workshop:longestName')}>
          <LimitInput
            label={say('workshop:characters')}
            width="w-20"
            value={type.most}
            set={(most) => setType(without({ ...type, most }) as Kind)}
          />
        </Line>
      );
    case 'files':
      return (
        <Line name={say('workshop:filesName')}>
          <span className="flex flex-wrap items-center gap-x-4 gap-y-2">
            <select
              aria-label={say('workshop:whichFiles')}
              className="input w-auto"
              value={type.only}
              onChange={(event) => setType({ ...type, only: event.target.value as typeof type.only })}
            >
              <option value="any">{say('workshop:files.any')}</option>
              <option value="documents">{say('workshop:files.documents')}</option>
              <option value="pictures">{say('workshop:files.pictures')}</option>
            </select>
            <LimitInput
              label={say('workshop:atMost')}
              width="w-14"
              value={type.most}
              set={(most) => setType(without({ ...type, most }) as Kind)}
            />
            <LimitInput
              label={say('workshop:mbEach')}
              width="w-16"
              value={type.mostBytes === undefined ? undefined : type.mostBytes / 1_000_000}
              set={(mb) =>
                setType(
                  without({ ...type, mostBytes: mb === undefined ? undefined : Math.round(mb * 1_000_000) }) as Kind,
                )
              }
            />
          </span>
        </Line>
      );
    case 'term':
    case 'terms':
      return (
        <Line name={say('workshop:termsName')}>
          <TermDetails id={`terms-${field.key}`} type={type} vocabularies={vocabularies} set={setType} />
        </Line>
      );
    case 'reference':
    case 'references':
      return editing ? (
        <Line name={say('workshop:refersToName')}>
          <ReferenceDetails field={field} type={type} editing={editing} set={setType} />
        </Line>
      ) : null;
    case 'running-number':
      return (
        <Line name={say('workshop:numberName')}>
          <span className="flex flex-wrap items-center gap-x-4 gap-y-2">
            <label className="flex items-center gap-2">
              {say('workshop:startsWith')}{' '}
              <input
                className="input w-44 font-mono"
                maxLength={20}
                value={type.prefix}
                onChange={(event) => setType({ ...type, prefix: event.target.value })}
              />
            </label>
            <LimitInput
              label={say('workshop:digits')}
              width="w-14"
              value={type.digits}
              set={(digits = 1) => setType({ ...type, digits: Math.min(9, Math.max(1, Math.trunc(digits))) })}
            />
            <span className="w-full text-[12.5px]">
              {say('workshop:firstNumber', {
                number: numberWith(numberPrefix(type.prefix, editing?.proof.facts.today ?? ''), type.digits, 1),
              })}
            </span>
          </span>
        </Line>
      );
    case 'line-items':
      return (
        <Line name={say('workshop:columnsName')}>
          <LineColumns type={type} vocabularies={vocabularies} set={setType} />
        </Line>
      );
    default:
      return null;
  }
}

/** Whether something else may be said than the options. */
const SomethingElse = ({
  type,
  set,
}: {
  type: Extract<Kind, { kind: 'choice' | 'choices' }>;
  set: (type: Kind) => void;
}) => (
  <label className="mt-1.5 flex items-center gap-2 text-ink">
    <input
      type="checkbox"
      className="accent-green"
      checked={type.other ?? false}
      onChange={(event) => set(without({ ...type, other: event.target.checked || undefined }) as Kind)}
    />
    {say('workshop:mayOther')}
  </label>
);

const Line = ({ name, children }: { name: string; children: ReactNode }) => (
  <>
    <span className="self-start pt-1.5">{name}</span>
    <div className="min-w-0">{children}</div>
  </>
);

const amount = (inMinor: number | undefined, currency: string): number | undefined =>
  inMinor === undefined ? undefined : inMinor / 10 ** placesOf(currency);
const minor = (inMajor: number | undefined, currency: string): number | undefined =>
  inMajor === undefined ? undefined : Math.round(inMajor * 10 ** placesOf(currency));

/** The same limits in another currency: as many of its units, however many places it has. */
const inCurrency = (type: Extract<Kind, { kind: 'money' }>, currency: string): Kind =>
  without({
    ...type,
    currency,
    least: minor(amount(type.least, type.currency), currency),
    most: minor(amount(type.most, type.currency), currency),
  }) as Kind;

/**
 * The steps of a scale from the lowest up. A step set between two others takes a worth between
 * theirs.
 */
function LevelsEditor({ levels, set }: { levels: readonly Level[]; set: (levels: readonly Level[]) => void }) {
  const insert = (after: number): void => {
    const [low, high] = [levels[after]?.worth ?? 0, levels[after + 1]?.worth];
    const worth = high === undefined ? low + 10 : Math.floor((low + high) / 2);
    if (worth <= low) return;
    set([...levels.slice(0, after + 1), { worth, label: say('workshop:newLevel') }, ...levels.slice(after + 1)]);
  };
  return (
    <ol>
      {levels.map((level, index) => (
        <li key={level.worth} className="mb-1 flex items-center gap-1.5">
          <input
            aria-label={say('workshop:levelNo', { label: level.label })}
            className={`input flex-1 ${level.retired ? 'line-through' : ''}`}
            value={level.label}
            onChange={(event) =>
              set(levels.map((each) => (each.worth === level.worth ? { ...each, label: event.target.value } : each)))
            }
          />
          <button type="button" className="text-[13px] text-green" onClick={() => insert(index)}>
            {say('workshop:addAbove')}
          </button>
          <button
            type="button"
            className="w-[4.6rem] text-left text-[13px] text-green"
            onClick={() =>
              set(levels.map((each) => (each.worth === level.worth ? { ...each, retired: !each.retired } : each)))
            }
          >
            {level.retired ? say('workshop:offerAgain') : say('workshop:retireOption')}
          </button>
        </li>
      ))}
    </ol>
  );
}
