import type { AnswerOf, ProblemDocument } from '@tolvek/contract';
import { CONTACT_LABELS, contactProblems } from '@tolvek/core/door';
import type { Problem } from '@tolvek/core/register';
import { useEffect, useRef, useState } from 'react';
import { Controller, useForm, useWatch } from 'react-hook-form';
import { api, problemOf } from '../app/api.ts';
import { AskedQuestion, inputId } from '../fields/AskedQuestion.tsx';
import { ProblemLine } from '../fields/ProblemLine.tsx';
import { Button } from '../ui/Button.tsx';
import { forget, type KeptAnswers, keep, newKey, nothingTyped, recall } from './keptAnswers.ts';
import { Sent } from './Sent.tsx';
import { useCompletion } from './useCompletion.ts';
import { useLeftFields } from './useLeftFields.ts';

type OpenDoor = AnswerOf<'door'> & { form: NonNullable<AnswerOf<'door'>['form']> };

/** Filling in a form: the same rules run here as on the server, and what is typed stays on this device until it is sent. */
export function FillIn({ door, reload }: { door: OpenDoor; reload: () => void }) {
  const { form, slug } = door;
  const { complete, state } = useCompletion(form);
  const { control, handleSubmit, reset, getValues, setValue } = useForm<KeptAnswers>({ defaultValues: recall(slug) });
  const typed = useWatch({ control }) as KeptAnswers;
  const { asked, problems: found } = complete(knownAnswers(typed, form), form.facts);
  const [submit, { isLoading, data: sent }] = api.useSubmitMutation();
  const [tried, setTried] = useState(false);
  const { left, leave, forgetLeft } = useLeftFields();
  const [refused, setRefused] = useState<ProblemDocument | null>(null);
  const [isKept, setIsKept] = useState(false);
  const summary = useRef<HTMLDivElement>(null);

  // At every change, not a moment later: a reload right after the last letter must not lose it.
  useEffect(() => {
    if (!sent) setIsKept(hasTyped(typed) && keep(slug, typed));
  }, [typed, slug, sent]);

  const problems = [...found, ...(door.kind === 'outside' ? contactProblems(typed.contact) : []), ...fromServer(refused, found)];
  const shownProblem = (field: string): Problem | undefined =>
    problems.find((problem) => problem.field === field && (tried || (left.has(field) && !problem.message.endsWith('has no answer yet.'))));

  const send = async (): Promise<void> => {
    setTried(true);
    setRefused(null);
    const now = getValues();
    const current = complete(knownAnswers(now, form), form.facts).problems;
    if (current.length > 0 || (door.kind === 'outside' && contactProblems(now.contact).length > 0)) {
      requestAnimationFrame(() => summary.current?.focus());
      return;
    }
    const answers = Object.fromEntries(Object.entries(knownAnswers(now, form)).filter(([, value]) => value !== '' && value !== null));
    const result = await submit({ slug, key: now.key, body: { release: form.release, answers, ...(door.kind === 'outside' ? { contact: now.contact } : {}) } });
    if (!('error' in result)) return forget(slug);
    const problem = problemOf(result.error);
    // The same key must not be used for corrected answers.
    if (problem.status >= 400 && problem.status < 500) setValue('key', newKey());
    setRefused(problem);
    requestAnimationFrame(() => summary.current?.focus());
  };

  if (sent) return <Sent sent={sent} again={() => location.reload()} />;
  const listed = tried ? problems : [];
  const labels = new Map(form.questions.map((question) => [question.field, question.asks || form.fields.find((field) => field.key === question.field)?.label || question.field]));
  return (
    <form noValidate onSubmit={handleSubmit(send)}>
      {form.intro ? <p className="mt-2 text-soft">{form.intro}</p> : null}
      <div ref={summary} tabIndex={-1} className="outline-none">
        {refused && !refused.problems ? (
          <div role="alert" className="mt-5 border-l-[3px] border-brick bg-brick-wash px-4 py-3">
            <p className="font-semibold">{refused.title}</p>
            <p>{refused.detail}</p>
            {refused.type.endsWith('form-changed') ? (
              <Button className="mt-3" onClick={reload}>
                Load the new form
              </Button>
            ) : null}
          </div>
        ) : null}
        {listed.length > 0 ? (
          <div role="alert" className="mt-5 border-l-[3px] border-brick bg-brick-wash px-4 py-3">
            <p className="font-semibold">{listed.length === 1 ? 'One answer needs another look' : `${listed.length} answers need another look`}</p>
            <ul className="mt-1 list-disc pl-5">
              {listed.map((problem) => (
                <li key={`${problem.field} ${problem.message}`}>
                  <a href={`#${inputId(problem.field)}`} onClick={(event) => jump(event, problem.field)}>
                    {lineFor(problem, CONTACT_LABELS[problem.field] ?? labels.get(problem.field) ?? problem.field)}
                  </a>{' '}
                  {problem.fix}
                </li>
              ))}
            </ul>
          </div>
        ) : null}
      </div>
      {asked.map((question) => {
        const field = form.fields.find((each) => each.key === question.field);
        return field ? (
          <Controller
            key={field.key}
            control={control}
            name={`answers.${field.key}`}
            render={({ field: input }) => (
              <AskedQuestion
                question={question}
                field={field}
                value={input.value ?? null}
                problem={shownProblem(field.key)}
                onChange={input.onChange}
                onBlur={() => leave(field.key)}
              />
            )}
          />
        ) : null;
      })}
      {door.kind === 'outside' ? (
        <>
          <h2 className="section-head mt-9">Who asks?</h2>
          {(['name', 'email'] as const).map((part) => {
            const problem = shownProblem(`contact.${part}`);
            const id = inputId(`contact.${part}`);
            return (
              <div key={part} className="mt-5">
                <label htmlFor={id} className="block font-semibold">
                  {CONTACT_LABELS[`contact.${part}`]}
                </label>
                {part === 'email' ? (
                  <p id={`${id}-help`} className="mt-0.5 text-[0.93em] text-soft">
                    We send a link there to confirm it; your request goes out with that click.
                  </p>
                ) : null}
                <Controller
                  control={control}
                  name={`contact.${part}`}
                  render={({ field: input }) => (
                    <input
                      id={id}
                      className="input mt-1.5"
                      type={part === 'email' ? 'email' : 'text'}
                      autoComplete={part}
                      value={input.value}
                      onChange={input.onChange}
                      onBlur={() => leave(`contact.${part}`)}
                      aria-invalid={problem !== undefined}
                      aria-describedby={`${part === 'email' ? `${id}-help ` : ''}${problem ? `${id}-problem` : ''}`}
                    />
                  )}
                />
                {problem ? <ProblemLine id={`${id}-problem`} problem={problem} /> : null}
              </div>
            );
          })}
        </>
      ) : null}
      <div className="mt-8 flex flex-wrap items-center gap-x-5 gap-y-3">
        <Button look="main" type="submit" disabled={isLoading || state !== 'ready'} className="min-h-12 px-7 text-[16px]">
          {isLoading ? 'Sending …' : state === 'loading' ? 'One moment …' : 'Send'}
        </Button>
        {state === 'failed' ? <p className="text-brick">A part of this page could not be loaded. What you typed is kept: check the connection and load the page again.</p> : null}
        <span className="text-[14px] text-soft" aria-live="polite">
          {isKept ? 'Kept on this device until you send it. ' : ''}
          {isKept ? (
            <button
              type="button"
              className="underline"
              onClick={() => {
                forget(slug);
                reset(nothingTyped());
                setTried(false);
                forgetLeft();
              }}
            >
              Clear it
            </button>
          ) : null}
        </span>
      </div>
    </form>
  );
}

/** Typed answers to questions this release asks; what an older release asked stays out. */
function knownAnswers(typed: KeptAnswers, form: OpenDoor['form']): KeptAnswers['answers'] {
  return Object.fromEntries(form.questions.flatMap((question) => (typed.answers?.[question.field] === undefined ? [] : [[question.field, typed.answers[question.field] ?? null]])));
}

const hasTyped = (typed: KeptAnswers): boolean =>
  Object.values(typed.answers ?? {}).some((value) => value !== '' && value !== null && value !== undefined) || Boolean(typed.contact?.name || typed.contact?.email);

/** Problems only the server could know, until the answer is changed. */
function fromServer(refused: ProblemDocument | null, found: readonly Problem[]): readonly Problem[] {
  return (refused?.problems ?? []).filter((problem) => !found.some((each) => each.field === problem.field));
}

/** A problem in the list names its question, once. */
const lineFor = (problem: Problem, label: string): string => (problem.message.includes(label) ? problem.message : `${label}: ${problem.message}`);

function jump(event: React.MouseEvent, field: string): void {
  event.preventDefault();
  const input = document.getElementById(inputId(field));
  input?.scrollIntoView({ block: 'center' });
  input?.focus({ preventScroll: true });
}
