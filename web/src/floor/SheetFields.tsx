import type { AnswerOf } from '@tolvek/contract';
import type { VisibleField } from '@tolvek/core/access';
import {
  fileId,
  fileName,
  type ItemRow,
  type Kind,
  namesAround,
  type OptionColour,
  type RawAnswer,
} from '@tolvek/core/register';
import { useState } from 'react';
import { Link } from 'react-router';
import { type AllOpen, OpenAnswer, SaveAll, useAllOpen } from '../fields/ChangeAll.tsx';
import { EditInPlace, toWorkOn } from '../fields/EditInPlace.tsx';
import { AroundFieldsProvider } from '../fields/input.ts';
import { LinesTable } from '../fields/LinesTable.tsx';
import { useChanging } from '../fields/useChanging.ts';
import { Button } from '../ui/Button.tsx';
import { ColourMark } from '../ui/ColourMark.tsx';
import { LiveText } from '../ui/LiveText.tsx';
import { Why } from '../ui/Why.tsx';
import { problemOf } from '../wire/problem.ts';
import { say, told } from '../wire/words.ts';
import { floorApi } from './endpoints.ts';
import { useAroundSheet } from './useAroundSheet.ts';

type SheetData = AnswerOf<'sheet'>;

/**
 * The fields this viewer may read, desk-only ones apart; writable ones are changed where they
 * stand.
 */
export function SheetFields({ sheet, reload }: { sheet: SheetData; reload: () => void }) {
  const leftOut = new Set(sheet.edition?.leftOut);
  const [isOpen, setOpen] = useState(sheet.edition?.opensToChange ?? false);
  const [change] = floorApi.useChangeFieldsMutation();
  const { number, version } = sheet;
  const all = useAllOpen((changes) => change({ number, version, body: { changes } }).unwrap(), reload);
  const [shows, setShows] = useState(false);
  const fields = shows ? sheet.values.fields : sheet.values.fields.filter(({ key }) => !leftOut.has(key));
  const asked = fields.filter((field) => field.source === 'asked');
  const computed = fields.filter((field) => field.source === 'computed');
  const brought = fields.filter((field) => field.source === 'carried' || field.source === 'given');
  const desk = fields.filter((field) => field.source === 'desk-only');
  const around = useAroundSheet(sheet);
  // What is typed stays here, whatever becomes of the field meanwhile.
  const [typed, setTyped] = useState<Readonly<Record<string, Typed>>>({});
  const work = ({ key, label }: Pick<VisibleField, 'key' | 'label'>) => ({
    ...{ sheet, reload, editing: typed[key]?.value, all: isOpen ? all : null },
    setEditing: (value: RawAnswer | undefined) =>
      setTyped(({ [key]: _, ...others }) => (value === undefined ? others : { ...others, [key]: { label, value } })),
  });
  const [say_] = floorApi.useChangingMutation();
  useChanging(Object.keys(isOpen ? all.changes : typed), (fields) => say_({ number, body: { fields: [...fields] } }));
  const writable = fields.filter((field) => field.writable && sheet.fieldTypes[field.key]).length;
  const lost = Object.entries(typed).filter(
    ([key]) => !sheet.values.fields.some((field) => field.key === key && field.writable),
  );
  return (
    <AroundFieldsProvider value={around}>
      {lost.map(([key, { label, value }]) => (
        <div key={key} role="alert" className="mt-3 border-l-[3px] border-brass-mark bg-brass-wash px-3 py-2">
          <p>{say('floor:closedMeanwhile', { label })}</p>
          {typeof value === 'string' ? <p className="my-1 whitespace-pre-line">{value}</p> : null}
          <Button onClick={() => work({ key, label }).setEditing(undefined)}>{say('floor:discardTyped')}</Button>
        </div>
      ))}
      <AtWork sheet={sheet} />
      <h3 className="section-head mt-6 flex items-baseline justify-between gap-3">
        {say('floor:answers')}
        {writable > 1 && !isOpen ? (
          <button type="button" className="text-[13px] font-normal text-green underline" onClick={() => setOpen(true)}>
            {say('floor:changeAll')}
          </button>
        ) : null}
      </h3>
      {asked.map((field) => (
        <SheetField key={field.key} field={field} {...work(field)} />
      ))}
      {sheet.values.withheld.map((hidden) => (
        <div key={hidden.label} className="grid grid-cols-[128px_1fr] border-b border-rule py-1.5">
          <span className="text-soft">{hidden.label}</span>
          <span className="text-soft">
            {say('floor:hiddenFromYou')} <Why about={hidden.label}>{told(hidden.rule)}</Why>
          </span>
        </div>
      ))}
      {computed.length > 0 ? <h3 className="section-head mt-6">{say('floor:computed')}</h3> : null}
      {computed.map((field) => (
        <SheetField key={field.key} field={field} {...work(field)} />
      ))}
      {brought.length > 0 ? <h3 className="section-head mt-6">{say('floor:givenAndCarried')}</h3> : null}
      {brought.map((field) => (
        <SheetField key={field.key} field={field} {...work(field)} />
      ))}
      {desk.length > 0 ? <h3 className="section-head mt-6">{say('floor:staffOnly')}</h3> : null}
      {desk.map((field) => (
        <SheetField key={field.key} field={field} {...work(field)} />
      ))}
      {isOpen && writable > 0 ? (
        <SaveAll all={all} stop={() => setOpen(false)} className="-bottom-6 bg-sheet pb-8" />
      ) : null}
      {leftOut.size > 0 ? (
        <p className="mt-3 text-[13px] text-soft">
          {say('floor:leftOut', { count: leftOut.size, edition: sheet.edition?.name ?? '' })}{' '}
          <button type="button" className="text-green underline" onClick={() => setShows(!shows)}>
            {say(shows ? 'floor:hideLeftOut' : 'floor:showLeftOut')}
          </button>
        </p>
      ) : null}
    </AroundFieldsProvider>
  );
}

/** Who else has begun to change it just now. */
function AtWork({ sheet: { number, values } }: { sheet: SheetData }) {
  const { data } = floorApi.useChangedByQuery({ number });
  const others = data?.others ?? [];
  // What is not said any more is forgotten at the desk; that is asked while somebody is there.
  floorApi.useChangedByQuery({ number }, { pollingInterval: 30_000, skip: others.length === 0 });
  const labelOf = (key: string): string => values.fields.find((field) => field.key === key)?.label ?? key;
  return others.map(({ name, asked, fields }) => (
    <p key={name} role="status" className="mt-4 border-l-[3px] border-brass-mark bg-brass-wash px-3 py-2">
      {fields.length > 0
        ? say(asked ? 'floor:askerChanges' : 'floor:othersChange', { name, fields: fields.map(labelOf) })
        : say('floor:othersAtIt', { name })}
    </p>
  ));
}

/** What somebody types into a field, and what the field is called. */
interface Typed {
  readonly label: string;
  readonly value: RawAnswer;
}

/** What is said beside a field that is changed: its help, and that who decides is asked again by it. */
export const helpFor = ({ help, asksAgain }: SheetData, key: string): string =>
  [help[key] ?? '', asksAgain.includes(key) ? say('floor:asksAgain') : ''].filter(Boolean).join('\n');

interface SheetFieldProps {
  readonly sheet: SheetData;
  readonly field: VisibleField;
  readonly reload: () => void;
  /** What is typed; nothing where it is not changed just now. */
  readonly editing: RawAnswer | undefined;
  readonly setEditing: (value: RawAnswer | undefined) => void;
  /** What is typed where all answers are open; null where they are changed one by one. */
  readonly all: AllOpen | null;
}

function SheetField({ sheet, field, reload, editing, setEditing, all }: SheetFieldProps) {
  const [change, { data: kept, isLoading, error, reset }] = floorApi.useChangeFieldsMutation();
  const type = sheet.fieldTypes[field.key];
  const problem = error ? problemOf(error) : null;
  const save = async (event: React.FormEvent): Promise<void> => {
    event.preventDefault();
    const done = await change({
      number: sheet.number,
      version: sheet.version,
      body: { changes: { [field.key]: editing ?? null } },
    });
    if (!('error' in done)) setEditing(undefined);
    else if (problemOf(done.error).status === 412) reload();
  };
  const stop = (): void => {
    setEditing(undefined);
    reset();
  };
  if (all && type && field.writable)
    return <OpenAnswer id={`sheet-${field.key}`} {...{ field, all }} kind={type} help={helpFor(sheet, field.key)} />;
  if (editing === undefined || !type || !field.writable) {
    return (
      <div className="group grid grid-cols-[128px_1fr_auto] items-baseline border-b border-rule py-1.5">
        <span className="pr-2 text-soft">
          {sheet.builds === null ? (
            field.label
          ) : (
            <Link
              to={`/workshop/${sheet.builds}/access?field=${field.key}`}
              className="text-soft no-underline hover:underline focus-visible:underline"
              title={say('floor:whoSees')}
              aria-label={say('floor:whoSeesField', { label: field.label })}
            >
              {field.label}
            </Link>
          )}
        </span>
        {type?.kind === 'files' && Array.isArray(field.value) ? (
          <Files number={sheet.number} refs={field.value as readonly string[]} />
        ) : (type?.kind === 'reference' || type?.kind === 'references') && field.value !== null ? (
          <References
            sheet={sheet}
            ids={Array.isArray(field.value) ? (field.value as readonly string[]) : [String(field.value)]}
            shown={told(field.shown)}
          />
        ) : type?.kind === 'line-items' && Array.isArray(field.value) ? (
          <span className="col-span-2 col-start-1 row-start-2 block overflow-x-auto">
            <LinesTable type={type} rows={field.value as readonly ItemRow[]} nameOf={namesAround(sheet)} />
          </span>
        ) : (
          <span className="break-words whitespace-pre-line">
            <ColourMark colour={colourOf(type, field.value)} />
            {field.shown ? (
              <LiveText text={told(field.shown)} />
            ) : (
              <span className="text-soft">{say('floor:emptyValue')}</span>
            )}
          </span>
        )}
        {field.writable && type ? (
          <button
            type="button"
            className="pl-2 text-[13px] text-green opacity-0 group-hover:opacity-100 focus-visible:opacity-100"
            onClick={() => setEditing(toWorkOn(type, field.value))}
            aria-label={say('floor:changeField', { label: field.label })}
          >
            {say('floor:change')}
          </button>
        ) : (
          <span className="pl-2 text-[13px] text-soft">
            {field.why ? (
              <>
                {say('floor:readOnly')} <Why about={field.label}>{told(field.why)}</Why>
              </>
            ) : null}
          </span>
        )}
        {kept?.warnings.map(({ field: at, text }) => (
          <p key={`${at} ${text}`} role="status" className="col-span-3 mt-1 text-amber">
            {text}
          </p>
        ))}
      </div>
    );
  }
  return (
    <EditInPlace
      id={`sheet-${field.key}`}
      field={{ key: field.key, label: field.label, type }}
      lines={field.lines}
      help={helpFor(sheet, field.key)}
      value={editing}
      set={setEditing}
      {...{ problem, isLoading, save, stop }}
    />
  );
}

/** The colour of the option that was chosen. */
const colourOf = (type: Kind | undefined, value: VisibleField['value']): OptionColour | undefined =>
  type?.kind === 'choice' ? type.options.find((option) => option.key === value)?.colour : undefined;

/** What a reference points to, as links where the viewer may open it. */
function References({ sheet, ids, shown }: { sheet: SheetData; ids: readonly string[]; shown: string }) {
  const known = ids.map((id) => sheet.references.find((each) => each.id === id));
  if (known.some((each) => each === undefined)) return <span className="break-words">{shown}</span>;
  return (
    <span className="min-w-0 break-words">
      {known.map((each, index) => (
        <span key={each?.id}>
          {index > 0 ? ', ' : ''}
          {each && sheet.opens.includes(each.number) ? (
            <Link to={`/floor/all/${each.number}`}>{each.label}</Link>
          ) : (
            each?.label
          )}
        </span>
      ))}
    </span>
  );
}

const PICTURE = /\.(jpe?g|png|webp|gif)$/i;

/** Files as links to them, pictures as small ones; whoever reads the field may fetch them. */
const Files = ({ number, refs }: { number: string; refs: readonly string[] }) => (
  <span className="flex min-w-0 flex-wrap gap-2">
    {refs.map((ref) => {
      const [address, name] = [`/api/requests/${number}/files/${fileId(ref)}`, fileName(ref)];
      return (
        <a
          key={ref}
          href={address}
          className={PICTURE.test(name) ? 'block max-w-full' : 'w-full truncate'}
          title={name}
        >
          {PICTURE.test(name) ? (
            <img src={address} alt={name} loading="lazy" className="h-20 max-w-full border border-rule object-cover" />
          ) : (
            name
          )}
        </a>
      );
    })}
  </span>
);
