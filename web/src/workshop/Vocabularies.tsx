import type { AnswerOf } from '@tolvek/contract';
import { howSaid, translated } from '@tolvek/core/design';
import { mergeTerms, type Term, termByKey, termPath, termsInOrder, vocabularyProblems } from '@tolvek/core/register';
import type { Words } from '@tolvek/words';
import { useMemo, useState } from 'react';
import { Link, NavLink, useNavigate, useParams } from 'react-router';
import { toast } from 'sonner';
import { Button } from '../ui/Button.tsx';
import { Trouble } from '../ui/Trouble.tsx';
import { useTitle } from '../ui/useTitle.ts';
import { problemOf, refusalInWords } from '../wire/problem.ts';
import { LANGUAGE_NAMES, type Language, say, told } from '../wire/words.ts';
import { workshopApi } from './endpoints.ts';
import { DeleteGround } from './groundwork/DeleteGround.tsx';
import { type TextLine, TextLines, useWhatIsLeft } from './languages/TextLines.tsx';
import { useOtherLanguages } from './languages/useOtherLanguages.ts';
import { MoveButtons } from './MoveButtons.tsx';
import { withPasted } from './pastedTerms.ts';

const BASE = '/workshop/groundwork/vocabularies';

/** The vocabularies of the house: lists of terms that many forms use, kept once. */
export function Vocabularies() {
  useTitle(say('workshop:vocabularies'));
  const { vocabulary: asked } = useParams();
  const { data, error, refetch } = workshopApi.useVocabulariesQuery();
  // The first one stands open where none is asked for: going there instead would lose what is typed
  // beside the list.
  const key = asked ?? data?.vocabularies[0]?.key;
  const { data: opened, error: closed } = workshopApi.useVocabularyQuery(
    { key: key ?? '' },
    { skip: !key || key === 'new' },
  );
  const isNew = asked === 'new' || data?.vocabularies.length === 0;
  return (
    <main className="min-h-0 overflow-auto px-[26px] pt-5 pb-10">
      <h1>{say('workshop:vocabularies')}</h1>
      <p className="text-soft">{say('workshop:vocabulariesHint')}</p>
      {error ? <Trouble error={error} again={refetch} /> : null}
      <nav
        aria-label={say('workshop:vocabularies')}
        className="mt-3 flex flex-wrap gap-x-6 border-b border-rule-strong"
      >
        {data?.vocabularies.map((each) => (
          <NavLink
            key={each.key}
            to={`${BASE}/${each.key}`}
            aria-current={!isNew && each.key === key ? 'page' : undefined}
            className={`border-b-[3px] px-0.5 py-2 no-underline ${!isNew && each.key === key ? 'border-green font-semibold text-ink' : 'border-transparent text-soft hover:text-ink'}`}
          >
            {each.name} <span className="font-normal text-soft">{each.terms}</span>
          </NavLink>
        ))}
        <NavLink
          to={`${BASE}/new`}
          className={`border-b-[3px] px-0.5 py-2 no-underline ${isNew ? 'border-green font-semibold text-ink' : 'border-transparent'}`}
        >
          {say('workshop:newVocabulary')}
        </NavLink>
      </nav>
      {closed && !isNew ? (
        <div className="mt-4">
          <Trouble error={closed} again={refetch} />
        </div>
      ) : null}
      {data && data.vocabularies.length === 0 ? <p className="mt-4 text-soft">{say('workshop:noVocabulary')}</p> : null}
      {isNew ? <NewVocabulary /> : null}
      {!isNew && key && opened?.key === key ? <OpenVocabulary key={key} opened={opened} /> : null}
    </main>
  );
}

function NewVocabulary() {
  const navigate = useNavigate();
  const [name, setName] = useState('');
  const [create, { error, isLoading }] = workshopApi.useCreateVocabularyMutation();
  const make = async (event: React.FormEvent): Promise<void> => {
    event.preventDefault();
    const made = await create({ once: crypto.randomUUID(), body: { name } });
    if (!('data' in made) || !made.data) return;
    setName('');
    navigate(`${BASE}/${made.data.key}`);
  };
  const problem = error ? problemOf(error) : null;
  return (
    <form onSubmit={make} className="mt-5 max-w-96">
      <label htmlFor="new-vocabulary" className="text-[13px] text-soft">
        {say('workshop:newVocabulary')}
      </label>
      <span className="mt-1 flex gap-2">
        <input
          id="new-vocabulary"
          className="input"
          placeholder={say('workshop:itsName')}
          value={name}
          aria-invalid={problem !== null}
          aria-describedby={problem ? 'new-vocabulary-problem' : undefined}
          onChange={(event) => setName(event.target.value)}
        />
        <Button type="submit" disabled={isLoading}>
          {say('workshop:addVocabulary')}
        </Button>
      </span>
      {problem ? (
        <span id="new-vocabulary-problem" role="alert" className="mt-1 block text-[13px] text-brick">
          {problem.problems?.map((each) => `${told(each.message)} ${told(each.fix)}`).join(' ') ??
            refusalInWords(problem)}
        </span>
      ) : null}
    </form>
  );
}

type Opened = AnswerOf<'vocabulary'>;

function OpenVocabulary({ opened }: { opened: Opened }) {
  useTitle(say('workshop:vocabularyTitle', { name: opened.name }));
  const [base, setBase] = useState<Pick<Opened, 'terms' | 'name' | 'version'>>(opened);
  const [terms, setTerms] = useState<readonly Term[]>(opened.terms);
  const [name, setName] = useState(opened.name);
  const [at, setAt] = useState<string | null>(null);
  const [save, { isLoading, error, reset }] = workshopApi.useSaveVocabularyMutation();
  const [readAnew] = workshopApi.useLazyVocabularyQuery();
  const vocabulary = useMemo(() => ({ key: opened.key, name, terms }), [opened.key, name, terms]);
  const problems = useMemo(() => vocabularyProblems(terms), [terms]);
  const refused = error ? problemOf(error) : null;
  const found = [
    ...problems.map(({ at: field, message, fix }) => ({ field, message, fix })),
    ...(refused?.problems ?? []).filter((each) => !problems.some((own) => own.at === each.field)),
  ];
  const changes = changesInWords(base.terms, terms, opened.held, base.name === name ? null : name);
  const edit = (key: string, change: (term: Term) => Term): void => {
    reset();
    setTerms((before) => before.map((term) => (term.key === key ? change(term) : term)));
  };
  const keep = async (): Promise<void> => {
    let [version, wanted] = [base.version, terms];
    for (let tries = 0; tries < 3; tries += 1) {
      const result = await save({ key: opened.key, version, body: { name, terms: [...wanted] } });
      if (!('error' in result) && result.data) {
        setBase({ name, terms: wanted, version: result.data.version });
        setTerms(wanted);
        toast(
          result.data.moved > 0
            ? say('workshop:vocabularyMoved', { count: result.data.moved })
            : say('workshop:vocabularySaved'),
        );
        return;
      }
      // Somebody else kept a change meanwhile: theirs and mine are put together, term by term.
      if (problemOf(result.error).status !== 412) return;
      const { data } = await readAnew({ key: opened.key });
      if (!data) return;
      [version, wanted] = [data.version, mergeTerms(base.terms, wanted, data.terms)];
    }
  };
  return (
    <div className="mt-5 max-w-[58rem]">
      <div className="flex flex-wrap items-baseline gap-x-4 gap-y-2">
        <h2 className="flex-1 text-[21px]">
          <input
            aria-label={say('workshop:vocabularyName')}
            className="w-full border-b border-transparent bg-transparent hover:border-rule-strong"
            value={name}
            onChange={(event) => setName(event.target.value)}
          />
        </h2>
        <Button
          look="main"
          disabled={changes.length === 0 || problems.length > 0 || isLoading}
          onClick={() => void keep()}
        >
          {isLoading ? say('workshop:saving') : say('workshop:saveChanges')}
        </Button>
      </div>
      <p className="text-soft">
        {opened.uses.length === 0 ? say('workshop:noFormUses') : `${say('workshop:usedBy')} `}
        {opened.uses.map((use, index) => (
          <span key={`${use.form} ${use.field}`}>
            {index > 0 ? ', ' : ''}
            <Link to={`/workshop/${use.form}`}>{use.title}</Link> ({told(use.field)})
          </span>
        ))}
      </p>
      {changes.length > 0 ? (
        <p className="mt-2 border-l-[3px] border-brass-mark bg-brass-wash px-3 py-1.5" aria-live="polite">
          {say('workshop:notSavedYet', { changes: changes.join(', ') })}
        </p>
      ) : null}
      {refused && !refused.problems ? (
        <p role="alert" className="mt-2 text-brick">
          {refusalInWords(refused)}
        </p>
      ) : null}
      <h2 className="section-head mt-5">{say('workshop:termsInOrder')}</h2>
      <ul>
        {termsInOrder(vocabulary).map(({ term, depth }) => (
          <TermLine
            key={term.key}
            term={term}
            depth={depth}
            vocabulary={vocabulary}
            held={opened.held[term.key] ?? 0}
            isNew={!base.terms.some((each) => each.key === term.key)}
            problems={found.filter((problem) => problem.field === term.key)}
            open={at === term.key}
            toggle={() => setAt(at === term.key ? null : term.key)}
            edit={(change) => edit(term.key, change)}
            set={(next) => {
              reset();
              setTerms(next);
            }}
          />
        ))}
      </ul>
      <AddTerms
        label={say('workshop:addTerms')}
        add={(text) => setTerms((before) => withPasted(before, text, undefined))}
      />
      <TermsInOthers terms={terms} edit={edit} />
      <p className="mt-6">
        <DeleteGround at={{ kind: 'vocabulary', key: opened.key }} then={BASE} />
      </p>
    </div>
  );
}

/** So many terms are translated on one page; the next come as these are done. */
const AT_ONCE = 100;

/** What the terms are called in other languages: those that are still to do, language by language. */
function TermsInOthers({
  terms,
  edit,
}: {
  readonly terms: readonly Term[];
  readonly edit: (key: string, change: (term: Term) => Term) => void;
}) {
  const [isOpen, setOpen] = useState(false);
  const languages = useOtherLanguages();
  const offered = terms.filter(({ label, retired, now }) => label.trim() !== '' && !retired && now === undefined);
  if (offered.length === 0) return null;
  return (
    <section className="mt-6" aria-label={say('languages:others')}>
      <button
        type="button"
        className="py-1 text-green underline"
        aria-expanded={isOpen}
        onClick={() => setOpen(!isOpen)}
      >
        {say('languages:others')}
      </button>
      {isOpen ? languages.map((language) => <TermsIn key={language} {...{ language, edit }} terms={offered} />) : null}
    </section>
  );
}

function TermsIn({
  language,
  terms,
  edit,
}: {
  readonly language: Language;
  readonly terms: readonly Term[];
  readonly edit: (key: string, change: (term: Term) => Term) => void;
}) {
  const lines = terms.map((term): TextLine => {
    const text = { place: 'label', text: term.label, kind: 'term' as const };
    const caption = say('languages:kind.term');
    return { ...text, ...howSaid(term.translations?.[language]?.label, term.label), id: term.key, caption };
  });
  const left = useWhatIsLeft(lines);
  return (
    <section aria-label={LANGUAGE_NAMES[language]} className="mt-2">
      <div className="flex items-baseline gap-3 text-[13px]">
        <h3>{LANGUAGE_NAMES[language]}</h3>
        <span className="text-soft tabular-nums">
          {say('languages:done', { done: left.done, count: lines.length })}
        </span>
        <button type="button" className="text-green underline" onClick={() => left.show(!left.isAll)}>
          {say(left.isAll ? 'languages:show.left' : 'languages:show.all')}
        </button>
      </div>
      <TextLines
        lines={left.shown.slice(0, AT_ONCE)}
        {...{ language }}
        put={(line, says) => {
          left.hold();
          edit(line.id, (term) => ({ ...term, translations: translated(term.translations, language, line, says) }));
        }}
      />
    </section>
  );
}

/** What keeping would change, in a few words each. */
function changesInWords(
  before: readonly Term[],
  after: readonly Term[],
  held: Opened['held'],
  name: string | null,
): readonly string[] {
  const was = new Map(before.map((term) => [term.key, term]));
  const is = new Map(after.map((term) => [term.key, term]));
  const fresh = after.filter((term) => !was.has(term.key)).length;
  const gone = before.filter((term) => !is.has(term.key)).length;
  const merged = after.filter((term) => term.now !== undefined && was.get(term.key)?.now !== term.now);
  const changed =
    after.filter((term) => was.has(term.key) && JSON.stringify(was.get(term.key)) !== JSON.stringify(term)).length -
    merged.filter((term) => was.has(term.key)).length;
  const moving = merged.reduce((sum, term) => sum + (held[term.key] ?? 0), 0);
  const order =
    after
      .map((term) => term.key)
      .filter((key) => was.has(key))
      .join(' ') !==
    before
      .map((term) => term.key)
      .filter((key) => is.has(key))
      .join(' ');
  return [
    ...(name === null ? [] : [say('workshop:called', { name })]),
    ...(fresh > 0 ? [say('workshop:termsNew', { n: fresh })] : []),
    ...(changed > 0 ? [say('workshop:termsChanged', { n: changed })] : []),
    ...(merged.length > 0 ? [say('workshop:termsMerged', { n: merged.length, count: moving })] : []),
    ...(gone > 0 ? [say('workshop:termsGone', { n: gone })] : []),
    ...(order ? [say('workshop:termsOrder')] : []),
  ];
}

interface TermLineProps {
  readonly term: Term;
  readonly depth: number;
  readonly vocabulary: { readonly key: string; readonly name: string; readonly terms: readonly Term[] };
  readonly held: number;
  readonly isNew: boolean;
  readonly problems: readonly { readonly message: Words; readonly fix: Words }[];
  readonly open: boolean;
  readonly toggle: () => void;
  readonly edit: (change: (term: Term) => Term) => void;
  readonly set: (terms: readonly Term[]) => void;
}

/** One term as a line in its place; opened, everything about it is edited there. */
function TermLine({ term, depth, vocabulary, held, isNew, problems, open, toggle, edit, set }: TermLineProps) {
  const { terms } = vocabulary;
  const siblings = terms.filter((each) => each.under === term.under);
  const place = siblings.indexOf(term);
  const target = term.now === undefined ? undefined : termByKey(vocabulary, term.key);
  const move = (way: -1 | 1): void => {
    const other = siblings[place + way];
    if (!other) return;
    const next = [...terms];
    const [from, to] = [terms.indexOf(term), terms.indexOf(other)];
    [next[from], next[to]] = [other, term];
    set(next);
  };
  return (
    <li
      className={open ? 'border border-l-[3px] border-green bg-sheet px-3 py-2' : 'border-b border-rule'}
      style={{ marginLeft: `${depth * 22}px` }}
    >
      <div className="flex items-baseline gap-3">
        <button
          type="button"
          className="min-w-0 flex-1 truncate py-1.5 text-left"
          aria-expanded={open}
          onClick={toggle}
        >
          <span className={term.retired || target ? 'text-soft line-through' : ''}>
            {term.label || say('workshop:noWordsYet')}
          </span>{' '}
          <span className="text-[13px] text-soft">
            {target ? say('workshop:nowTerm', { term: target.label }) : term.retired ? say('workshop:isRetired') : ''}
            {term.also?.length ? ` ${term.also.join(', ')}` : ''}
          </span>
        </button>
        <span className="text-[13px] text-soft tabular-nums">
          {held > 0 ? say('workshop:requests', { count: held }) : isNew ? say('workshop:isNew') : ''}
        </span>
        <MoveButtons
          index={place}
          of={siblings.length}
          words={[say('workshop:moveUpNo', { label: term.label }), say('workshop:moveDownNo', { label: term.label })]}
          move={move}
        />
      </div>
      {problems.map((problem) => (
        <p key={told(problem.message)} role="alert" className="pb-1 text-[13.5px] text-brick">
          {told(problem.message)} {told(problem.fix)}
        </p>
      ))}
      {open ? <TermEditor term={term} vocabulary={vocabulary} held={held} isNew={isNew} edit={edit} set={set} /> : null}
    </li>
  );
}

function TermEditor({
  term,
  vocabulary,
  held,
  isNew,
  edit,
  set,
}: Pick<TermLineProps, 'term' | 'vocabulary' | 'held' | 'isNew' | 'edit' | 'set'>) {
  const { terms } = vocabulary;
  const below = new Set(termsInOrder(vocabulary, term.key).map((each) => each.term.key));
  const others = termsInOrder(vocabulary).filter((each) => each.term.key !== term.key && !below.has(each.term.key));
  const hasBelow = below.size > 0;
  const put = (next: Partial<Term>): void =>
    edit((before) => {
      const merged = { ...before, ...next };
      return Object.fromEntries(Object.entries(merged).filter(([, value]) => value !== undefined)) as unknown as Term;
    });
  const id = `term-${term.key}`;
  return (
    <div className="mt-1 grid grid-cols-[110px_minmax(0,1fr)] items-center gap-x-3 gap-y-2 pb-1 text-soft">
      <label htmlFor={`${id}-label`}>{say('workshop:term')}</label>
      <span className="flex items-center gap-3">
        <input
          id={`${id}-label`}
          className="input"
          value={term.label}
          onChange={(event) => put({ label: event.target.value })}
        />
        <code className="max-w-40 shrink-0 truncate font-mono text-[12px]" title={say('workshop:keyHint')}>
          {term.key}
        </code>
      </span>
      <label htmlFor={`${id}-also`}>{say('workshop:otherWords')}</label>
      <OtherWords
        key={term.key}
        id={`${id}-also`}
        also={term.also ?? []}
        set={(also) => put({ also: also.length > 0 ? also : (undefined as never) })}
      />
      <label htmlFor={`${id}-under`}>{say('workshop:under')}</label>
      <select
        id={`${id}-under`}
        className="input w-auto justify-self-start"
        value={term.under ?? ''}
        onChange={(event) => put({ under: event.target.value || (undefined as never) })}
      >
        <option value="">{say('workshop:underNothing')}</option>
        {others.map((each) => (
          <option key={each.term.key} value={each.term.key}>
            {termPath(vocabulary, each.term.key).join(' › ')}
          </option>
        ))}
      </select>
      <label htmlFor={`${id}-now`}>{say('workshop:mergedInto')}</label>
      <select
        id={`${id}-now`}
        className="input w-auto justify-self-start"
        value={term.now ?? ''}
        disabled={hasBelow}
        onChange={(event) => put({ now: event.target.value || (undefined as never) })}
      >
        <option value="">{hasBelow ? say('workshop:notWithChildren') : say('workshop:mergedNothing')}</option>
        {others
          .filter((each) => each.term.now === undefined)
          .map((each) => (
            <option key={each.term.key} value={each.term.key}>
              {termPath(vocabulary, each.term.key).join(' › ')}
            </option>
          ))}
      </select>
      <span />
      <span className="flex flex-wrap items-center gap-2">
        <Button onClick={() => put({ retired: term.retired ? (undefined as never) : true })}>
          {term.retired ? say('workshop:offerTerm') : say('workshop:retireTerm')}
        </Button>
        {held === 0 && !hasBelow ? (
          <Button look="refuse" onClick={() => set(terms.filter((each) => each.key !== term.key))}>
            {say('workshop:removeTerm')}
          </Button>
        ) : (
          <span className="text-[13px]">{isNew ? '' : say('workshop:termInUse')}</span>
        )}
      </span>
      <span />
      <AddTerms
        label={say('workshop:addUnder', { term: term.label })}
        add={(text) => set(withPasted(terms, text, term.key))}
      />
    </div>
  );
}

/** Other words for a term, with commas between; read when the line is left. */
function OtherWords({
  id,
  also,
  set,
}: {
  id: string;
  also: readonly string[];
  set: (also: readonly string[]) => void;
}) {
  const [words, setWords] = useState(also.join(', '));
  return (
    <input
      id={id}
      className="input"
      placeholder={say('workshop:otherWordsHint')}
      value={words}
      onChange={(event) => setWords(event.target.value)}
      onBlur={() =>
        set(
          words
            .split(',')
            .map((word) => word.trim())
            .filter(Boolean),
        )
      }
    />
  );
}

function AddTerms({ label, add }: { label: string; add: (text: string) => void }) {
  return (
    <input
      aria-label={label}
      className="input mt-2"
      placeholder={say('workshop:addTermHint')}
      onKeyDown={(event) => {
        if (event.key !== 'Enter' || event.currentTarget.value.trim() === '') return;
        event.preventDefault();
        add(event.currentTarget.value);
        event.currentTarget.value = '';
      }}
      onPaste={(event) => {
        const text = event.clipboardData.getData('text/plain');
        if (!/\n/.test(text.trim())) return;
        event.preventDefault();
        add(text);
      }}
    />
  );
}
