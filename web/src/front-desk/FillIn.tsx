import type { AnswerOf } from '@tolvek/contract';
import { CONTACT_LABELS, consentProblems, contactProblems, isContactField } from '@tolvek/core/door';
import type { Field, KnownRequest, Problem, RawAnswers } from '@tolvek/core/register';
import { lazy, Suspense, useCallback, useEffect, useMemo, useReducer, useRef, useState } from 'react';
import { useLocation, useNavigate } from 'react-router';
import { inputId } from '../fields/AskedQuestion.tsx';
import { cellId } from '../fields/cellId.ts';
import { FormParts } from '../fields/FormParts.tsx';
import { factsWith } from '../fields/factsWith.ts';
import { AnswersBesideProvider, AroundFieldsProvider } from '../fields/input.ts';
import { ProblemLine } from '../fields/ProblemLine.tsx';
import type { Updating } from '../fields/updating.ts';
import { uploadFile } from '../fields/uploadFile.ts';
import { useOnTheWay } from '../fields/useOnTheWay.ts';
import { Button } from '../ui/Button.tsx';
import { RefusalSaid } from '../ui/Trouble.tsx';
import { problemOf } from '../wire/problem.ts';
import { say, told } from '../wire/words.ts';
import type { ByEmail, From, Like } from './broughtAlong.ts';
import { Consent } from './Consent.tsx';
import { frontDeskApi } from './endpoints.ts';
import { ForSomebody, type OnBehalf } from './ForSomebody.tsx';
import { allProblems, begun, filled, hasTyped, isTold, knownAnswers, withoutBlanks } from './filling.ts';
import { GoOnLater } from './GoOnLater.tsx';
import { HowLong } from './HowLong.tsx';
import {
  forget,
  type KeptAnswers,
  type KeptElsewhere,
  keep,
  keptUnder,
  newKey,
  nothingTyped,
  recall,
} from './keptAnswers.ts';
import { pageOf, pagesOf } from './pages.ts';
import { workedOut } from './slowWork.ts';
import { useCompletion } from './useCompletion.ts';
import { type KeptAt, useKeptAtDesk } from './useKeptAtDesk.ts';
import { useLed } from './useLed.ts';
import { useLeftFields } from './useLeftFields.ts';
import { usePrinting } from './usePrinting.ts';
import { useTaken } from './useTaken.ts';

// While one types: it is there when they send, whatever the network or a new release does until then.
const loadSent = () => import('./Sent.tsx');
const Sent = lazy(() => loadSent().then(({ Sent: default_ }) => ({ default: default_ })));
const loadPrinted = () => import('./PrintedForm.tsx');
const PrintedForm = lazy(loadPrinted);
const Led = lazy(() => import('./Led.tsx').then(({ Led: default_ }) => ({ default: default_ })));
const HeldPlace = lazy(() => import('./HeldPlace.tsx').then(({ HeldPlace: default_ }) => ({ default: default_ })));
const loadUpdating = () => import('../fields/Updating.tsx');
const WhatChanges = lazy(() => loadUpdating().then(({ WhatChanges: default_ }) => ({ default: default_ })));
const StandsNow = lazy(() => loadUpdating().then(({ StandsNow: default_ }) => ({ default: default_ })));

type OpenDoor = AnswerOf<'door'> & { form: NonNullable<AnswerOf<'door'>['form']> };

/**
 * Filling in a form: the same rules run here as on the server, and what is typed stays on this
 * device until it is sent.
 */
export function FillIn({
  door,
  reload,
  kept,
  keptAt,
  owed,
  place,
  gavePlace,
}: {
  door: OpenDoor;
  /** What shows that the form was sent to who fills it in. */
  owed?: string | undefined;
  /** The link to a place that is held for who fills it in. */
  place?: string | undefined;
  /** They gave a place that was held for them to the next. */
  gavePlace: () => void;
  reload: () => void;
  kept: KeptElsewhere | null;
  keptAt: KeptAt;
}) {
  const { form, slug } = door;
  const { state: handedOn, search } = useLocation();
  const {
    like = null,
    from = null,
    byEmail = null,
  } = (handedOn ?? {}) as {
    readonly like?: Like | null;
    readonly from?: From | null;
    readonly byEmail?: ByEmail | null;
  };
  // What was sent to somebody, or an email says, is kept apart from what they ask by themselves.
  const here = keptUnder(slug, byEmail ? `email ${byEmail.id}` : door.sent?.id);
  const { complete, rules, state } = useCompletion(form);
  const [filling, step] = useReducer(filled, null, () => {
    const typed = recall(here, kept);
    return begun({ ...typed, opened: typed.opened ?? form.opened });
  });
  const { typed, page, passed, tried, refused } = filling;
  // What was typed last, for what is asked of the desk a moment later.
  const latest = useRef(typed);
  latest.current = typed;
  const { files, references } = typed;
  const facts = useMemo(() => factsWith(form.facts, { files, references }), [form.facts, files, references]);
  const theirs = useMemo(() => (rules ? rules.changeableIn(form, complete) : []), [rules, form, complete]);
  const answered = knownAnswers(typed, form);
  const updating = rules?.updatingWith(complete, form, theirs, { answers: answered, typed, facts }) ?? null;
  const changes = updating?.about.is === 'one' ? updating.about.one : null;
  const completion =
    rules && updating && changes
      ? rules.completedOverTheirs(complete, changes, updating.says, facts)
      : complete(answered, facts);
  const [submit, { isLoading: isSubmitting, data: sent }] = frontDeskApi.useSubmitMutation();
  const [askByEmail, { isLoading: isAsking }] = frontDeskApi.useAskByEmailMutation();
  const isLoading = isSubmitting || isAsking;
  const navigate = useNavigate();
  const leaveField = useLeftFields(useCallback((fields) => step({ does: 'leave', fields }), []));
  const opened = typed.opened;
  const shows = useMemo(
    () => ({ opened, ...(owed === undefined ? {} : { owed }), ...(place === undefined ? {} : { place }) }),
    [opened, owed, place],
  );
  const means = changes?.id ?? (updating?.about.is === 'another' ? 'another' : undefined);
  const taken = useTaken(slug, form.together, means === undefined ? shows : { ...shows, entry: means });
  const led = useLed(
    slug,
    form.leadsBy,
    rules ? withoutBlanks(rules.answersToSend(answered, completion, form.parts), form) : NOTHING,
    shows,
  );
  const [giveWork, { isLoading: isWorking }] = frontDeskApi.useWorkMutation();
  const [ask] = frontDeskApi.useOffersMutation();
  const [isKept, setIsKept] = useState(false);
  const [behalf, setBehalf] = useState<OnBehalf | null>(null);
  const summary = useRef<HTMLDivElement>(null);
  const top = useRef<HTMLHeadingElement>(null);

  // At every change, not a moment later: a reload right after the last letter must not lose it.
  useEffect(() => {
    if (!sent) setIsKept(hasTyped(typed) && keep(here, typed));
  }, [typed, here, sent]);

  const atDesk = useKeptAtDesk(slug, keptAt, typed, keptFrom(typed, form, updating), isLoading || sent !== undefined);
  // What comes along is read by what reads answers, which comes a moment later than the page.
  useEffect(() => {
    if (rules) step({ does: 'bring', answers: rules.broughtAlong(form, { search, like, from }) });
  }, [rules, form, search, like, from]);
  useEffect(() => void loadSent(), []);
  const printing = usePrinting();
  const clearing = completion.cleared.join(' ');
  useEffect(() => {
    step({ does: 'empty', fields: clearing.split(' ').filter(Boolean) });
  }, [clearing]);

  const leave = (field: string): void => {
    leaveField(field);
    if (rules)
      taken.check(
        field,
        withoutBlanks(rules.answersToSend(knownAnswers(latest.current, form), completion, form.parts), form),
      );
  };
  const { isOnTheWay, follow } = useOnTheWay();
  const around = useMemo(
    () => ({
      ...facts,
      upload: async (field: string, file: File, told: (part: number) => void) => {
        const known = await follow(
          uploadFile(
            `/api/doors/${encodeURIComponent(slug)}/uploads`,
            ...([field, file, told] as const),
            // What is not shown does not stand in the address.
            JSON.parse(JSON.stringify(shows)) as Readonly<Record<string, string>>,
          ),
        );
        step({ does: 'attach', file: known });
        return known;
      },
      offers: (field: string, find: string) =>
        ask({
          slug,
          body: { field, find, ...shows, answers: withoutBlanks(knownAnswers(latest.current, form), form) },
        }).unwrap(),
      know: (request: KnownRequest) => step({ does: 'choose', request }),
      cardPicture: (field: string, file: string) =>
        `/api/doors/${encodeURIComponent(slug)}/cards/${field}/${file}?${new URLSearchParams(JSON.parse(JSON.stringify(shows)))}`,
    }),
    [facts, slug, form, ask, shows, follow],
  );
  const beside = useMemo(() => ({ answers: typed.answers, together: form.together }), [typed.answers, form.together]);
  // Whoever is signed in has said who they are.
  const isUnknown = door.kind === 'outside' && door.asks === null && !door.unnamed;
  // Whoever enters it for somebody else agrees to nothing in their place.
  const consent = (byEmail ? null : form.consent) ?? undefined;
  const agreed = consent && typed.agreed === consent.version ? typed.agreed : undefined;
  const whoAsks = [...(isUnknown ? contactProblems(typed.contact) : []), ...consentProblems({ consent }, agreed)];
  const found = [...completion.problems, ...(rules?.whichProblems(updating) ?? [])];
  const problems = allProblems(found, whoAsks, filling, taken.problems);
  const isUnanswered = (problem: Problem): boolean => rules?.isUnanswered(problem) ?? false;
  const pages = pagesOf(completion.parts);
  const at = Math.min(page, pages.length - 1);
  const current = pages[at] ?? { page: null, parts: [] };
  const isLast = at === pages.length - 1;
  const shownProblems = (field: string): readonly Problem[] =>
    problems.filter((problem) => problem.field === field && isTold(filling, problem, { pages, at, isUnanswered }));
  const shownProblem = (field: string): Problem | undefined => shownProblems(field)[0];

  /** What the button says that sends it. */
  const pressed = isOnTheWay
    ? 'common:fileComing'
    : isUnknown && door.proves !== 'never'
      ? 'desk:sendAndConfirm'
      : changes
        ? 'desk:sendChange'
        : 'desk:sendRequest';

  const tell = (): void => void requestAnimationFrame(() => summary.current?.focus());
  const turnTo = (next: number): void => {
    step({ does: 'turn', to: next });
    requestAnimationFrame(() => {
      scrollTo(0, 0);
      top.current?.focus({ preventScroll: true });
    });
  };
  const goOn = (): void => {
    if (problems.some((problem) => pageOf(pages, problem.field) === at)) {
      step({ does: 'stumble', page: at });
      tell();
      return;
    }
    turnTo(at + 1);
  };

  /** `still`: that all of it is still right. */
  const send = async (still = false): Promise<void> => {
    if (!rules) return;
    if (!isLast && !still) return goOn();
    // Enter sends as well as the button.
    if (isOnTheWay) return;
    step({ does: 'send' });
    // Where all is still right, nothing has to be said.
    const wrong = still ? completion.problems : found;
    if (wrong.length + whoAsks.length + taken.problems.length > 0) return tell();
    const sends = (given: RawAnswers): RawAnswers => rules.answersToSend(given, completion, form.parts);
    const answers = changes && updating ? sends(updating.says) : withoutBlanks(sends(answered), form);
    if (byEmail) {
      const asked = await askByEmail({
        ...{ id: byEmail.id, once: typed.key, body: { slug, release: form.release, answers } },
      });
      if ('error' in asked) return hear(asked.error);
      forget(here);
      return void navigate(`/floor/all/${asked.data.number}`);
    }
    // While the page waits for it, what takes a moment is worked out beside it.
    const task = form.work ? await giveWork({ slug }) : undefined;
    const work = task && 'data' in task && task.data ? await workedOut(task.data.work) : undefined;
    const result = await submit({
      slug,
      once: typed.key,
      body: {
        ...{ release: form.release, answers, ...shows },
        ...(means === undefined ? {} : { entry: means }),
        ...(agreed === undefined ? {} : { consent: agreed }),
        ...(work === undefined ? {} : { work }),
        ...(isUnknown ? { contact: typed.contact } : {}),
        ...(behalf ? { onBehalf: behalf[0] } : {}),
      },
    });
    if (!('error' in result)) return forget(here);
    hear(result.error);
  };
  const hear = (error: unknown): void => {
    const problem = problemOf(error);
    // The same key must not be used for corrected answers.
    step({ does: 'hear', problem, key: problem.status >= 400 && problem.status < 500 ? newKey() : null });
    tell();
  };
  const jump = (event: React.MouseEvent, problem: Problem): void => {
    event.preventDefault();
    const target = pageOf(pages, problem.field);
    if (target >= 0 && target !== at) step({ does: 'turn', to: target });
    requestAnimationFrame(() => focusOn(problem));
  };

  if (sent)
    return (
      <Suspense>
        <Sent slug={slug} sent={sent} isUnnamed={door.unnamed} again={door.sent ? null : () => location.reload()} />
      </Suspense>
    );
  const listed = tried
    ? problems
    : passed >= at
      ? problems.filter((problem) => pageOf(pages, problem.field) === at)
      : [];
  const labels = new Map(
    completion.asked.map((question) => [
      question.field,
      question.asks || (form.fields.find((field) => field.key === question.field)?.label ?? question.field),
    ]),
  );
  const labelOf = (field: string): string =>
    isContactField(field)
      ? say(CONTACT_LABELS[field])
      : field === 'consent'
        ? say('desk:consent')
        : (labels.get(field) ?? field);
  const general = completion.warnings.filter((said) => said.field === 'form');
  if (printing && state === 'ready')
    return (
      <Suspense>
        <PrintedForm fields={form.fields} intro={form.intro} completion={completion} facts={facts} />
      </Suspense>
    );
  return (
    <form
      noValidate
      onSubmit={(event) => {
        event.preventDefault();
        void send();
      }}
    >
      {form.intro && at === 0 ? <p className="mt-2 whitespace-pre-line text-soft">{form.intro}</p> : null}
      {like && at === 0 ? (
        <p className="mt-4 border-l-2 border-green pl-3.5">{say('desk:asBefore', { number: like.number })}</p>
      ) : null}
      {from && at === 0 ? (
        <p className="mt-4 border-l-2 border-green pl-3.5">
          {say('desk:ledHere', { title: from.title })} {from.values.length > 0 ? say('desk:ledWith') : ''}
        </p>
      ) : null}
      {byEmail ? (
        <WhatEmailSays
          email={byEmail}
          questions={(rules?.questionsFor(form.fields, byEmail) ?? []).filter(({ key }) =>
            current.parts.some((part) => part.part === 'question' && part.field === key),
          )}
          answer={(field) => step({ does: 'answer', field, value: byEmail.text, at: Date.now() })}
        />
      ) : null}
      {door.line?.is === 'held' && door.line.until !== null && at === 0 ? (
        <Suspense>
          <HeldPlace slug={slug} until={door.line.until} place={place} given={gavePlace} />
        </Suspense>
      ) : null}
      {door.unnamed && at === 0 ? (
        <p className="mt-4 border-l-2 border-green pl-3.5">{say('desk:storesNobody')}</p>
      ) : null}
      <HowLong door={door} />
      {pages.length > 1 ? (
        <div className="mt-4">
          <p className="text-[14px] text-soft">{say('desk:pageOf', { page: at + 1, pages: pages.length })}</p>
          <progress
            className="mt-1 block h-1.5 w-full"
            max={pages.length}
            value={at + 1}
            aria-label={say('desk:pageOf', { page: at + 1, pages: pages.length })}
          />
        </div>
      ) : null}
      {current.page ? (
        <>
          <h2 ref={top} tabIndex={-1} className="mt-5 text-[22px] outline-none">
            {current.page.title}
          </h2>
          {current.page.text ? <p className="mt-1 whitespace-pre-line text-soft">{current.page.text}</p> : null}
        </>
      ) : null}
      <div ref={summary} tabIndex={-1} className="outline-none">
        {refused && !refused.problems ? (
          <div role="alert" className="mt-5 border-l-[3px] border-brick bg-brick-wash px-4 py-3">
            <RefusalSaid problem={refused} />
            {refused.type.endsWith('closed') ? (
              <Button className="mt-3" onClick={reload}>
                {say('desk:whatNow')}
              </Button>
            ) : null}
            {refused.type.endsWith('form-changed') ? (
              <Button className="mt-3" onClick={reload}>
                {say('desk:loadNewForm')}
              </Button>
            ) : null}
          </div>
        ) : null}
        {listed.length > 0 ? (
          <div role="alert" className="mt-5 border-l-[3px] border-brick bg-brick-wash px-4 py-3">
            <p className="font-semibold">{say('desk:correctAnswers', { count: listed.length })}</p>
            <ul className="mt-1 list-disc pl-5">
              {listed.map((problem) => (
                <li key={`${problem.field} ${told(problem.message)}`}>
                  {problem.field === 'form' ? (
                    told(problem.message)
                  ) : (
                    <a href={`#${inputId(problem.field)}`} onClick={(event) => jump(event, problem)}>
                      {lineFor(told(problem.message), labelOf(problem.field))}
                    </a>
                  )}{' '}
                  {told(problem.fix)}
                </li>
              ))}
            </ul>
          </div>
        ) : null}
      </div>
      {general.map((said) => (
        <p key={said.rule + said.text} className="mt-4 border-l-[3px] border-brass-mark bg-brass-wash px-4 py-2.5">
          {said.text}
        </p>
      ))}
      {updating && at === 0 ? (
        <Suspense>
          <WhatChanges
            updating={updating}
            chosen={typed.entry}
            choose={(entry) =>
              step({ does: 'mean', entry, finds: rules?.foundBy(updating, entry) ?? {}, at: Date.now() })
            }
            confirm={() => void send(true)}
            isSending={isLoading || isOnTheWay}
          />
        </Suspense>
      ) : null}
      <AroundFieldsProvider value={around}>
        <AnswersBesideProvider value={beside}>
          <FormParts
            // Whose it is stands above the form.
            parts={
              form.updates?.whose
                ? current.parts.filter((part) => part.part !== 'question' || part.field !== form.updates?.whose)
                : current.parts
            }
            fields={form.fields}
            completion={completion}
            about={door.title}
            // Where something stands there, nothing is filled in beforehand.
            typedAt={(key) => (changes ? (typed.answers[key] ?? null) : typed.answers[key])}
            under={
              changes
                ? (field) => (
                    <Suspense>
                      <StandsNow
                        one={changes}
                        field={field}
                        mayRemove={rules?.canRemove(updating, completion, field) ?? null}
                        isGone={typed.cleared?.includes(field) ?? false}
                        takeAway={(is) => step({ does: 'take-away', field, is, at: Date.now() })}
                      />
                    </Suspense>
                  )
                : undefined
            }
            problemsAt={shownProblems}
            onChange={(key, value) => {
              taken.forget(key);
              step({ does: 'answer', field: key, value, at: Date.now() });
            }}
            onBlur={leave}
          />
        </AnswersBesideProvider>
      </AroundFieldsProvider>
      {door.asks && isLast && !byEmail ? (
        <p className="mt-8 text-soft">
          {say('desk:asksAs', door.asks)} {door.proves === 'each-time' ? say('desk:confirmsEachTime') : ''}
        </p>
      ) : null}
      {isUnknown && isLast ? (
        <>
          <h2 className="section-head mt-9">{say('desk:yourDetails')}</h2>
          {(['name', 'email'] as const).map((part) => {
            const problem = shownProblem(`contact.${part}`);
            const id = inputId(`contact.${part}`);
            return (
              <div key={part} className="mt-5">
                <label htmlFor={id} className="block font-semibold">
                  {say(CONTACT_LABELS[`contact.${part}`])}
                </label>
                {part === 'email' ? (
                  <p id={`${id}-help`} className="mt-0.5 text-[0.93em] text-soft">
                    {say(door.proves === 'never' ? 'desk:emailHintAfter' : 'desk:emailHint')}
                  </p>
                ) : null}
                <input
                  id={id}
                  className="input mt-1.5"
                  type={part === 'email' ? 'email' : 'text'}
                  autoComplete={part}
                  value={typed.contact[part]}
                  onChange={(event) => step({ does: 'name', part, text: event.target.value, at: Date.now() })}
                  onBlur={() => leave(`contact.${part}`)}
                  aria-invalid={problem !== undefined}
                  aria-describedby={`${part === 'email' ? `${id}-help ` : ''}${problem ? `${id}-problem` : ''}`}
                />
                {problem ? <ProblemLine id={`${id}-problem`} problem={problem} /> : null}
              </div>
            );
          })}
        </>
      ) : null}
      {consent && isLast ? (
        <Consent
          text={consent.text}
          isGiven={agreed !== undefined}
          problem={shownProblem('consent')}
          give={(isGiven) => step({ does: 'agree', version: isGiven ? consent.version : undefined, at: Date.now() })}
        />
      ) : null}
      {door.kind === 'staff' && !door.unnamed && !door.sent && !byEmail && !form.updates && isLast ? (
        <ForSomebody behalf={behalf} set={setBehalf} />
      ) : null}
      {led ? (
        <Suspense>
          <Led title={door.title} to={led} answers={answered} />
        </Suspense>
      ) : null}
      <div className="mt-8 flex flex-wrap items-center gap-x-5 gap-y-3 print:hidden">
        {at > 0 ? (
          <Button className="min-h-12 px-5 text-[16px]" onClick={() => turnTo(at - 1)}>
            {say('desk:previousPage')}
          </Button>
        ) : null}
        {led && isLast ? null : (
          <Button
            look="main"
            type="submit"
            disabled={isLoading || isWorking || (isOnTheWay && isLast) || state !== 'ready'}
            className="min-h-12 px-7 text-[16px]"
          >
            {isLoading || isWorking
              ? say('desk:sending')
              : state === 'loading'
                ? say('desk:oneMoment')
                : say(isLast ? pressed : 'desk:nextPage')}
          </Button>
        )}
        {state === 'failed' ? <p className="text-brick">{say('desk:partNotLoaded')}</p> : null}
        <span className="text-[14px] text-soft" aria-live="polite">
          {isKept ? (atDesk ? say('desk:savedAnywhere') : say('desk:savedHere')) : ''}
          {isKept ? (
            <button
              type="button"
              className="underline"
              onClick={() => {
                forget(here);
                step({ does: 'clear', typed: { ...nothingTyped(), opened, typedAt: Date.now() } });
              }}
            >
              {say('desk:deleteAnswers')}
            </button>
          ) : null}{' '}
          <button
            type="button"
            className="underline"
            onPointerEnter={() => void loadPrinted()}
            onFocus={() => void loadPrinted()}
            onClick={() => void loadPrinted().then(() => print())}
          >
            {say('desk:printForm')}
          </button>
        </span>
      </div>
      {door.kind === 'outside' && keptAt === null && isKept && !door.sent ? (
        <GoOnLater slug={slug} answers={keptFrom(typed, form, updating)} typed={typed} />
      ) : null}
    </form>
  );
}

/** The email that a request is made of, beside the form that asks for it. */
const WhatEmailSays = ({
  email: { name, subject, text },
  questions,
  answer,
}: {
  email: ByEmail;
  questions: readonly Pick<Field, 'key' | 'label'>[];
  answer: (field: string) => void;
}) => (
  <div className="mt-4 border-l-2 border-green pl-3.5">
    <p>{say('desk:byEmailFor', { name })}</p>
    <details className="mt-1" open>
      <summary className="font-semibold">{say('desk:byEmail', { name })}</summary>
      <p className="mt-1 max-h-64 overflow-auto text-[15px] break-words whitespace-pre-line">
        {[subject, text].filter(Boolean).join('\n\n')}
      </p>
    </details>
    {questions.map(({ key, label }) => (
      <button key={key} type="button" className="mt-1 mr-5 underline" onClick={() => answer(key)}>
        {say('desk:byEmailInto', { label })}
      </button>
    ))}
  </div>
);

const NOTHING: RawAnswers = {};

/** What is kept at the desk: answers that were typed, without those left empty. */
const keptFrom = (typed: KeptAnswers, form: OpenDoor['form'], updating: Updating | null): RawAnswers =>
  updating?.says ?? withoutBlanks(knownAnswers(typed, form), form);

/** A problem in the list names its question, once. */
const lineFor = (message: string, label: string): string =>
  message.includes(label) ? message : `${label}${/[?!.]$/.test(label) ? '' : ':'} ${message}`;

function focusOn({ field, place }: Problem): void {
  const id = inputId(field);
  const input =
    (place ? document.getElementById(cellId(id, place.row, place.column)) : null) ??
    document.getElementById(id) ??
    document.getElementById(`${id}-label`)?.parentElement?.querySelector<HTMLElement>('input, select, textarea');
  input?.scrollIntoView({ block: 'center' });
  input?.focus({ preventScroll: true });
}
