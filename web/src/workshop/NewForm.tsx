import type { AnswerOf } from '@tolvek/contract';
import {
  designFromRows,
  type FormDesign,
  type Ground,
  type Protecting,
  protectedHere,
  RECIPES,
  recipeLabel,
  recipeSays,
  settledHere,
} from '@tolvek/core/form';
import { type ReactNode, useState } from 'react';
import { Link, useNavigate } from 'react-router';
import { Button } from '../ui/Button.tsx';
import { ProblemsAt } from '../ui/ProblemsAt.tsx';
import { ToSignIn } from '../ui/ToSignIn.tsx';
import { Trouble } from '../ui/Trouble.tsx';
import { useTitle } from '../ui/useTitle.ts';
import { meApi } from '../wire/me.ts';
import { problemOf } from '../wire/problem.ts';
import { say, told } from '../wire/words.ts';
import { AskInto } from './AskInto.tsx';
import { workshopApi } from './endpoints.ts';
import { FilePick } from './FilePick.tsx';
import { GroupOnTheSpot } from './groundwork/NewGroup.tsx';
import { readStartFile, type StartFile } from './startFrom.ts';

/** A new form: what to start from, then where it belongs. */
export function NewForm() {
  useTitle(say('workshop:newForm'));
  const { data: me } = meApi.useMeQuery();
  const { data: ground, error } = workshopApi.useGroundQuery();
  if (me && !me.person) return <ToSignIn />;
  if (error)
    return (
      <main className="p-6">
        <Trouble error={error} />
      </main>
    );
  if (ground && (ground.groups.length === 0 || ground.calendars.length === 0)) return <GroundMissing ground={ground} />;
  return ground ? <Beginning ground={ground} /> : <p className="p-6 text-soft">{say('desk:oneMoment')}</p>;
}

/** What a form rests on and is not there yet, with the way to lay it. */
function GroundMissing({ ground }: { ground: AnswerOf<'ground'> }) {
  return (
    <main className="mx-auto max-w-[60rem] px-6 pt-6 pb-16">
      <h1>{say('workshop:newForm')}</h1>
      <p className="mt-2">{say('ground:formNeeds')}</p>
      <ul className="mt-3 max-w-[36rem]">
        {ground.groups.length === 0 ? (
          <li className="flex justify-between gap-4 border-b border-rule py-2.5">
            {say('ground:step.teamsMissing')}
            <Link to="/workshop/groundwork/groups">{say('ground:step.teamsGo')}</Link>
          </li>
        ) : null}
        {ground.calendars.length === 0 ? (
          <li className="flex justify-between gap-4 border-b border-rule py-2.5">
            {say('ground:step.calendarMissing')}
            <Link to="/workshop/groundwork/calendars">{say('ground:step.calendarGo')}</Link>
          </li>
        ) : null}
      </ul>
    </main>
  );
}

/** First whether it has a register of its own, as everything else depends on it. */
function Beginning({ ground }: { ground: AnswerOf<'ground'> }) {
  const [into, setInto] = useState('');
  const { data: register, error } = workshopApi.useRegisterQuery({ key: into }, { skip: into === '' });
  const [isOwn, setOwn] = useState(true);
  return (
    <main className="mx-auto max-w-[60rem] px-6 pt-6 pb-16">
      <h1>{say('workshop:newForm')}</h1>
      <div className="mt-4 grid gap-x-6 sm:grid-cols-2" role="radiogroup" aria-label={say('workshop:where')}>
        <StartChoice
          chosen={isOwn}
          group="belongs"
          label={say('workshop:ownRegister')}
          says={say('workshop:ownRegisterText')}
          choose={() => setOwn(true)}
        />
        <StartChoice
          chosen={!isOwn}
          group="belongs"
          label={say('workshop:intoRegister')}
          says={say('workshop:intoRegisterText')}
          choose={() => setOwn(false)}
        />
      </div>
      {isOwn ? (
        <Starting ground={ground} />
      ) : (
        <>
          <p className="mt-6 grid max-w-[44rem] grid-cols-[150px_1fr] items-baseline gap-x-4">
            <Label of="into-register">{say('workshop:register')}</Label>
            <select
              id="into-register"
              className="input w-auto justify-self-start"
              value={into}
              onChange={(event) => setInto(event.target.value)}
            >
              <option value="">{say('workshop:chooseRegister')}</option>
              {ground.registers.map((each) => (
                <option key={each.key} value={each.key}>
                  {each.name}
                </option>
              ))}
            </select>
          </p>
          {error ? <Trouble error={error} /> : null}
          {register && register.key === into ? <AskInto key={register.key} register={register} /> : null}
        </>
      )}
    </main>
  );
}

type Start =
  | { readonly from: 'recipe'; readonly recipe: string }
  | { readonly from: 'file'; readonly file: StartFile }
  | { readonly from: 'copy'; readonly form: string };

/** What a new form begins with, and what protects its answers. */
interface Made extends Protecting {
  readonly draft: FormDesign;
}

const unprotected: Protecting = { rules: [], staysIn: false };

interface Belonging {
  readonly title: string;
  readonly prefix: string;
  readonly team: string;
  readonly approvers: string;
  readonly calendar: string;
  readonly staff: boolean;
  readonly outside: boolean;
}

function Starting({ ground }: { ground: AnswerOf<'ground'> }) {
  const navigate = useNavigate();
  const { data: shelf } = workshopApi.useFormsQuery();
  const [loadForm] = workshopApi.useLazyFormQuery();
  const [create, { isLoading, error }] = workshopApi.useCreateFormMutation();
  const [start, setStart] = useState<Start>({ from: 'recipe', recipe: 'blank' });
  const [once] = useState(() => crypto.randomUUID());
  const [tries, setTries] = useState(0);
  const [reading, setReading] = useState('');
  const [places, setPlaces] = useState<Readonly<Record<string, string>>>({});
  const teams = ground.groups.filter((group) => group.isTeam);
  const [belongs, setBelongs] = useState<Belonging>({
    title: '',
    prefix: '',
    team: (teams[0] ?? ground.groups[0])?.key ?? '',
    approvers: (ground.groups.find((group) => !group.isTeam) ?? ground.groups[0])?.key ?? '',
    calendar: ground.calendars[0]?.key ?? '',
    staff: true,
    outside: false,
  });
  const set = (next: Partial<Belonging>): void => setBelongs((before) => ({ ...before, ...next }));
  const prefix = belongs.prefix || initials(belongs.title);
  const file = start.from === 'file' ? start.file : null;
  const missing =
    file?.kind === 'form'
      ? file.file.needs.groups.filter((need) => !ground.groups.some((group) => group.key === need.key))
      : [];
  const needs = file?.kind === 'form' ? file.file.needs : null;
  const newTerms =
    needs?.vocabularies.filter((need) => !ground.vocabularies.some((each) => each.key === need.key)) ?? [];
  const newRegisters = needs?.registers.filter((need) => !ground.registers.some((each) => each.key === need.key)) ?? [];
  const problems = error ? (problemOf(error).problems ?? []) : [];

  const groupsHere = (): Readonly<Record<string, string>> =>
    Object.fromEntries(missing.map((need) => [need.key, places[need.key] ?? belongs.team]));
  const starting = async (): Promise<Made | null> => {
    const on: Ground = {
      told,
      title: belongs.title.trim(),
      team: belongs.team,
      approvers: belongs.approvers,
      calendar: belongs.calendar,
    };
    if (start.from === 'recipe') {
      const recipe = RECIPES.find((each) => each.key === start.recipe);
      return recipe ? { draft: recipe.make(on), ...unprotected, rules: recipe.protects?.(on).rules ?? [] } : null;
    }
    if (start.from === 'copy') {
      const { data } = await loadForm({ key: start.form });
      return data ? { draft: { ...data.draft, title: on.title }, ...data.plan, staysIn: data.staysIn } : null;
    }
    if (start.file.kind === 'rows') return { draft: designFromRows(on, start.file.rows), ...unprotected };
    if (start.file.kind !== 'form') return null;
    const calendars = Object.fromEntries(
      start.file.file.needs.calendars
        .filter((need) => !ground.calendars.some((each) => each.key === need.key))
        .map((need) => [need.key, belongs.calendar]),
    );
    const settled = settledHere(start.file.file.design, {
      groups: groupsHere(),
      calendars,
      vocabularies: chosenFor('terms'),
      registers: chosenFor('register'),
    });
    return {
      draft: { ...settled, title: on.title },
      ...protectedHere(start.file.file.access ?? unprotected, groupsHere()),
    };
  };
  const chosenFor = (what: string): Readonly<Record<string, string>> =>
    Object.fromEntries(
      Object.entries(places).flatMap(([key, here]) =>
        key.startsWith(`${what} `) && here !== '' ? [[key.slice(what.length + 1), here]] : [],
      ),
    );
  const make = async (event: React.FormEvent): Promise<void> => {
    event.preventDefault();
    const made = await starting();
    if (!made) return;
    const holds =
      (start.from === 'recipe' && RECIPES.find((recipe) => recipe.key === start.recipe)?.holds) || 'requests';
    // A corrected form is a new try; the same one sent twice is made once.
    setTries(tries + 1);
    const created = await create({
      once: `${once}-${tries}`,
      body: {
        prefix,
        desk: belongs.team,
        doors: { staff: belongs.staff, outside: belongs.outside },
        holds,
        draft: made.draft,
        access: { rules: [...made.rules] },
        staysIn: made.staysIn,
        vocabularies: [...newTerms.filter((need) => !chosenFor('terms')[need.key])],
      },
    });
    if ('data' in created && created.data) navigate(`/workshop/${created.data.key}`);
  };
  const desk = ground.groups.find((group) => group.key === belongs.team);
  const members = say('workshop:members', { count: desk?.members ?? 0 });
  const isConfidential =
    start.from === 'recipe' && RECIPES.some((recipe) => recipe.key === start.recipe && recipe.protects);
  return (
    <form onSubmit={make} noValidate>
      <h2 className="section-head mt-6">{say('workshop:startFrom')}</h2>
      <div className="mt-1 grid gap-x-6 sm:grid-cols-2" role="radiogroup" aria-label={say('workshop:startFrom')}>
        {RECIPES.map((recipe) => (
          <StartChoice
            key={recipe.key}
            chosen={start.from === 'recipe' && start.recipe === recipe.key}
            label={told(recipeLabel(recipe))}
            says={told(recipeSays(recipe))}
            choose={() => setStart({ from: 'recipe', recipe: recipe.key })}
          />
        ))}
      </div>
      <div className="mt-3 flex flex-wrap items-center gap-x-6 gap-y-2">
        <div className="flex items-center gap-2">
          {say('workshop:orFile')}{' '}
          <FilePick
            name={say('workshop:file')}
            accept=".csv,.xlsx,.json"
            onChoose={async (chosen) => {
              const read = await readStartFile(chosen, setReading);
              setReading('');
              setStart({ from: 'file', file: read });
              if (read.kind === 'form' && belongs.title === '') set({ title: read.file.design.title });
            }}
          />
          <span role="status" className="text-soft">
            {reading}
          </span>
        </div>
        {shelf && shelf.forms.length > 0 ? (
          <label className="flex items-center gap-2">
            {say('workshop:orCopy')}
            <select
              className="input w-auto"
              value={start.from === 'copy' ? start.form : ''}
              onChange={(event) => event.target.value && setStart({ from: 'copy', form: event.target.value })}
            >
              <option value="">{say('workshop:chooseForm')}</option>
              {shelf.forms.map((form) => (
                <option key={form.key} value={form.key}>
                  {form.title}
                </option>
              ))}
            </select>
          </label>
        ) : null}
      </div>
      {file ? <FileRead file={file} /> : null}
      {start.from === 'copy' ? <p className="mt-2 text-soft">{say('workshop:copyText')}</p> : null}
      <h2 className="section-head mt-8">{say('workshop:belongs')}</h2>
      <div className="mt-3 grid max-w-[44rem] grid-cols-[150px_1fr] items-start gap-x-4 gap-y-3">
        <Label of="new-title">{say('workshop:title')}</Label>
        <span>
          <input
            id="new-title"
            className="input"
            value={belongs.title}
            onChange={(event) => set({ title: event.target.value })}
          />
          <ProblemsAt error={error} field="title" />
        </span>
        <Label of="new-prefix">{say('workshop:numbersStart')}</Label>
        <span>
          <input
            id="new-prefix"
            className="input w-28 font-mono"
            maxLength={5}
            value={prefix}
            onChange={(event) => set({ prefix: event.target.value.toUpperCase() })}
          />
          <span className="ml-3 text-soft">{prefix ? `${prefix}-00001` : say('workshop:twoToFive')}</span>
          <ProblemsAt error={error} field="prefix" />
        </span>
        <Label of="new-team">{say('workshop:group')}</Label>
        <span>
          <select
            id="new-team"
            className="input w-auto"
            value={belongs.team}
            onChange={(event) => set({ team: event.target.value })}
          >
            {ground.groups.map((group) => (
              <option key={group.key} value={group.key}>
                {group.name}
              </option>
            ))}
          </select>
          <span className="mt-1 block text-soft">
            {isConfidential
              ? say('workshop:confidentialRead', { group: desk?.name ?? '', members })
              : say('workshop:requestsRead', { group: desk?.name ?? '', members })}
          </span>
          <GroupOnTheSpot isTeam made={(team) => set({ team })} />
          <ProblemsAt error={error} field="desk" />
          <ProblemsAt error={error} field="access" />
        </span>
        <Label of="new-approvers">{say('workshop:approvedBy')}</Label>
        <select
          id="new-approvers"
          className="input w-auto justify-self-start"
          value={belongs.approvers}
          onChange={(event) => set({ approvers: event.target.value })}
        >
          {ground.groups.map((group) => (
            <option key={group.key} value={group.key}>
              {group.name}
            </option>
          ))}
        </select>
        <Label of="new-calendar">{say('workshop:workingCalendar')}</Label>
        <select
          id="new-calendar"
          className="input w-auto justify-self-start"
          value={belongs.calendar}
          onChange={(event) => set({ calendar: event.target.value })}
        >
          {ground.calendars.map((calendar) => (
            <option key={calendar.key} value={calendar.key}>
              {calendar.name}
            </option>
          ))}
        </select>
        <span className="text-soft">{say('workshop:whoCanSend')}</span>
        <span className="flex flex-wrap gap-x-5 gap-y-1">
          <label className="flex items-center gap-2">
            <input
              type="checkbox"
              className="accent-green"
              checked={belongs.staff}
              onChange={(event) => set({ staff: event.target.checked })}
            />{' '}
            {say('workshop:staff')}
          </label>
          <label className="flex items-center gap-2">
            <input
              type="checkbox"
              className="accent-green"
              checked={belongs.outside}
              onChange={(event) => set({ outside: event.target.checked })}
            />{' '}
            {say('workshop:outsiders')}
          </label>
          <ProblemsAt error={error} field="doors" />
        </span>
        {missing.map((need) => (
          <NeedLine
            key={need.key}
            need={need}
            groups={ground.groups}
            value={places[need.key] ?? belongs.team}
            set={(group) => setPlaces((before) => ({ ...before, [need.key]: group }))}
          />
        ))}
        {newTerms.map((need) => (
          <StandIn
            key={need.key}
            id={`terms ${need.key}`}
            of={need.name}
            says={say('workshop:lostVocabulary')}
            none={say('workshop:importTerms', { count: need.terms.length })}
            here={ground.vocabularies}
            value={places[`terms ${need.key}`] ?? ''}
            set={(key) => setPlaces((before) => ({ ...before, [`terms ${need.key}`]: key }))}
          />
        ))}
        {newRegisters.map((need) => (
          <StandIn
            key={need.key}
            id={`register ${need.key}`}
            of={need.name}
            says={say('workshop:lostRegister')}
            none={say('workshop:nothingYet')}
            here={ground.registers}
            value={places[`register ${need.key}`] ?? ''}
            set={(key) => setPlaces((before) => ({ ...before, [`register ${need.key}`]: key }))}
          />
        ))}
      </div>
      {error && problems.length === 0 ? (
        <div className="mt-4">
          <Trouble error={error} />
        </div>
      ) : null}
      <div className="mt-6">
        <Button look="main" type="submit" disabled={isLoading || file?.kind === 'unreadable'}>
          {isLoading ? say('workshop:creating') : say('workshop:createForm')}
        </Button>
        <span className="ml-4 text-soft">{say('workshop:notBeforeRelease')}</span>
      </div>
    </form>
  );
}

const Label = ({ of, children }: { of: string; children: ReactNode }) => (
  <label htmlFor={of} className="pt-1.5 text-soft">
    {children}
  </label>
);

function StartChoice({
  chosen,
  group = 'start',
  label,
  says,
  choose,
}: {
  chosen: boolean;
  /** Those of one name are chosen among each other. */
  group?: string;
  label: string;
  says: string;
  choose: () => void;
}) {
  return (
    <label
      className={`flex cursor-pointer items-start gap-2.5 border-b border-l-[3px] border-b-rule px-3 py-2 ${chosen ? 'border-l-green bg-sheet' : 'border-l-transparent'}`}
    >
      <input type="radio" name={group} className="mt-1 accent-green" checked={chosen} onChange={choose} />
      <span>
        <b className="block font-semibold">{label}</b>
        <span className="text-[13px] text-soft">{says}</span>
      </span>
    </label>
  );
}

/** What was found in a file: the questions it would give, with their kinds. */
function FileRead({ file }: { file: StartFile }) {
  if (file.kind === 'unreadable')
    return (
      <p role="alert" className="mt-3 border-l-[3px] border-brick bg-brick-wash px-3 py-2">
        <b className="font-semibold">{say('workshop:cannotUse', { file: file.name })}</b> {told(file.why)}
      </p>
    );
  if (file.kind === 'form')
    return (
      <p className="mt-3 text-soft">
        {say('workshop:fileForm', {
          file: file.name,
          title: file.file.design.title,
          fields: file.file.design.fields.length,
          rules: file.file.design.rules.length,
          access: file.file.access?.rules.length ?? 0,
        })}
      </p>
    );
  const { fields } = designFromRows({ told, title: '', team: '', approvers: '', calendar: '' }, file.rows);
  return (
    <div className="mt-3">
      <p className="text-soft">
        {say('workshop:fileRows', { file: file.name, rows: file.rows.length - 1, headings: fields.length })}
      </p>
      <ul className="mt-1 flex flex-wrap gap-x-5 gap-y-1">
        {fields.map((field) => (
          <li key={field.key}>
            {field.label} <span className="text-soft">{say(`fieldKinds:${field.type.kind}`)}</span>
          </li>
        ))}
      </ul>
    </div>
  );
}

function NeedLine({
  need,
  groups,
  value,
  set,
}: {
  need: { key: string; name: string };
  groups: AnswerOf<'ground'>['groups'];
  value: string;
  set: (group: string) => void;
}) {
  return (
    <>
      <label htmlFor={`need-${need.key}`} className="pt-1.5 text-soft">
        {say('workshop:forName', { name: need.name })}
      </label>
      <span>
        <select
          id={`need-${need.key}`}
          className="input w-auto"
          value={value}
          onChange={(event) => set(event.target.value)}
        >
          {groups.map((group) => (
            <option key={group.key} value={group.key}>
              {group.name}
            </option>
          ))}
        </select>
        <span className="mt-1 block text-soft">{say('workshop:lostGroup')}</span>
      </span>
    </>
  );
}

interface StandInProps {
  readonly id: string;
  readonly of: string;
  readonly says: string;
  readonly none: string;
  readonly here: readonly { readonly key: string; readonly name: string }[];
  readonly value: string;
  readonly set: (key: string) => void;
}

/** What stands here in the place of something the file names. */
function StandIn({ id, of, says, none, here, value, set }: StandInProps) {
  return (
    <>
      <label htmlFor={id} className="pt-1.5 text-soft">
        {say('workshop:forName', { name: of })}
      </label>
      <span>
        <select id={id} className="input w-auto" value={value} onChange={(event) => set(event.target.value)}>
          <option value="">{none}</option>
          {here.map((each) => (
            <option key={each.key} value={each.key}>
              {each.name}
            </option>
          ))}
        </select>
        <span className="mt-1 block text-soft">{says}</span>
      </span>
    </>
  );
}

/** Letters for numbers, from a title: `Field kit loan` gives FKL. */
function initials(title: string): string {
  const words = title
    .normalize('NFKD')
    .toUpperCase()
    .split(/[^A-Z]+/)
    .filter(Boolean);
  const letters = words.length > 1 ? words.map((word) => word[0]).join('') : (words[0] ?? '').slice(0, 2);
  return letters.slice(0, 5);
}
