import type { AnswerOf } from '@tolvek/contract';
import { preparePaths } from '@tolvek/core/approval';
import { explain, parseExpression } from '@tolvek/core/expression';
import {
  type Elsewhere,
  type FormDesign,
  isUnanswered,
  lookedAtTogether,
  partKey,
  partName,
  questionsOf,
  ruleInWords,
  type ShownPart,
} from '@tolvek/core/form';
import { type Field, type FieldValue, namesAround, type Problem, sayValue } from '@tolvek/core/register';
import { prepareRouting, rowsSaying } from '@tolvek/core/routing';
import { createContext, Fragment, memo, useContext, useMemo, useRef, useState } from 'react';
import { FormParts } from '../fields/FormParts.tsx';
import { AnswersBesideProvider, type AroundFields, AroundFieldsProvider } from '../fields/input.ts';
import { StandsNow, WhatChanges } from '../fields/Updating.tsx';
import { canRemove } from '../fields/updating.ts';
import { uploadFile } from '../fields/uploadFile.ts';
import { RowReasons } from '../ui/RowReasons.tsx';
import { Why } from '../ui/Why.tsx';
import { LANGUAGE_NAMES, say, told, useLanguage } from '../wire/words.ts';
import { ledTo } from './editions/editionEdits.ts';
import { workshopApi } from './endpoints.ts';
import { useOtherLanguages, useWritten } from './languages/useOtherLanguages.ts';
import { Reasons } from './Reasons.tsx';
import { SeatPicker } from './SeatPicker.tsx';
import { TrialButton } from './TrialButton.tsx';
import type { DraftEditing } from './useDraft.ts';
import type { Over } from './useOver.ts';
import { isAnybody, type ProofState } from './useProof.ts';

/**
 * The proof: the draft as the chosen person meets it, alive while it is edited, with what is away,
 * what is computed, and what routing would do.
 */
export function Proof({ editing, form, proof }: { editing: DraftEditing; form: AnswerOf<'form'>; proof: ProofState }) {
  const { draft } = editing;
  const { scope, slots, completion } = proof;
  const [tried, setTried] = useState(false);
  const route = useMemo(() => prepareRouting(draft.routing, scope), [draft.routing, scope]);
  const pathFor = useMemo(() => preparePaths(draft.approval, scope), [draft.approval, scope]);
  const [ask] = workshopApi.useDraftOffersMutation();
  const { facts, know, hold, seat, over } = proof;
  const one = over?.updating.about.is === 'one' ? over.updating.about.one : null;
  // What is offered goes by the answers of then; the inputs need not be drawn for each of them.
  const latest = useRef(proof.answers);
  latest.current = proof.answers;
  const around = useMemo((): AroundFields => {
    const outside = facts.door === 'outside';
    const person = isAnybody(seat) ? null : seat;
    return {
      ...facts,
      upload: async (field, file, told) => {
        const known = await uploadFile(`/api/forms/${encodeURIComponent(form.key)}/draft/uploads`, field, file, told);
        hold(known);
        return known;
      },
      know,
      offers: (field, find) =>
        ask({ key: form.key, body: { field, find, answers: latest.current, person, outside } }).unwrap(),
      cardPicture: (field, file) => `/api/forms/${encodeURIComponent(form.key)}/cards/${field}/${file}`,
    };
  }, [facts, know, hold, seat, ask, form.key]);
  const together = useMemo(() => lookedAtTogether(draft), [draft]);
  const beside = useMemo(() => ({ answers: proof.answers, together }), [proof.answers, together]);
  const { problems } = completion;
  const routed = route(slots);
  const rows = rowsSaying(routed);
  const asked = pathFor(routed.outcome.path, slots);
  const team = form.groups.find((group) => group.key === routed.outcome.team)?.name ?? routed.outcome.team;
  const shownProblems = new Map<string, Problem[]>();
  for (const problem of problems)
    if (tried || !isUnanswered(problem))
      shownProblems.set(problem.field, [...(shownProblems.get(problem.field) ?? []), problem]);
  const general = completion.warnings.filter((said) => said.field === 'form');
  return (
    <>
      <p className="flex flex-wrap items-center gap-2 text-[13px]">
        {say('workshop:seenBy')}
        <SeatPicker
          id="proof-seat"
          people={form.people}
          label={say('workshop:seenByShort')}
          look="max-w-56 border-b-[1.5px] border-green bg-transparent font-semibold text-green"
          seat={seat}
          sit={proof.setSeat}
          called={proof.sitting?.label}
        />
        {say(proof.facts.door === 'outside' ? 'workshop:proofDoor.outside' : 'workshop:proofDoor.staff')}
        <InEdition draft={draft} proof={proof} />
        <InALanguage draft={draft} proof={proof} />
      </p>
      {proof.edition?.elsewhere ? (
        <Leads elsewhere={proof.edition.elsewhere} />
      ) : proof.led ? (
        <Leads elsewhere={proof.led.elsewhere} byAnswers />
      ) : null}
      {draft.updates && isAnybody(seat) ? (
        <p className="mt-2 text-[13px] text-soft">{say('workshop:overNobody')}</p>
      ) : null}
      <div className="mt-3 border border-rule bg-sheet p-5" lang={proof.language ?? undefined}>
        <h2>{proof.asked.title || say('workshop:noTitleYet')}</h2>
        <p className="mt-1 whitespace-pre-line text-soft">{proof.asked.intro}</p>
        {general.map((said) => (
          <p key={said.rule + said.text} className="mt-3 border-l-[3px] border-brass-mark bg-brass-wash px-3 py-2">
            {said.text}
          </p>
        ))}
        {over ? (
          <WhatChanges
            updating={over.updating}
            chosen={over.chosen}
            choose={(entry) => {
              for (const [key, value] of Object.entries(over.choose(entry))) proof.answer(key, value);
            }}
          />
        ) : null}
        <AroundFieldsProvider value={around}>
          <AnswersBesideProvider value={beside}>
            {onPages(completion.parts).map(({ page, parts }, index) => (
              <Fragment key={page?.id ?? 'before'}>
                {page ? (
                  <div className="mt-7 border-t-2 border-dotted border-rule-strong pt-3">
                    <p className="text-[12.5px] text-soft">
                      {index === 0 ? say('workshop:firstPage') : say('desk:nextPage')}
                    </p>
                    <h2>{page.title}</h2>
                    {page.text ? <p className="text-soft">{page.text}</p> : null}
                  </div>
                ) : null}
                <FormParts
                  // Whose it is stands above the form.
                  parts={
                    over && proof.named !== null
                      ? parts.filter((part) => part.part !== 'question' || part.field !== proof.named)
                      : parts
                  }
                  fields={proof.asked.fields}
                  completion={completion}
                  about={draft.title}
                  prefix="proof"
                  typedAt={(key) => (one ? (proof.answers[key] ?? null) : proof.answers[key])}
                  under={
                    one && over
                      ? (field) => (
                          <StandsNow
                            one={one}
                            field={field}
                            mayRemove={canRemove(over.updating, completion, field)}
                            isGone={over.cleared.includes(field)}
                            takeAway={(is) => over.takeAway(field, is)}
                          />
                        )
                      : undefined
                  }
                  problemsAt={(key) => shownProblems.get(key) ?? NO_PROBLEM}
                  onChange={proof.answer}
                />
              </Fragment>
            ))}
          </AnswersBesideProvider>
        </AroundFieldsProvider>
        <p className="mt-5 border-t border-rule pt-3 text-soft" aria-live="polite">
          {problems.length === 0
            ? say(one ? 'workshop:changeCouldBeSent' : 'workshop:couldBeSent')
            : say('workshop:answersWrong', { count: problems.length })}{' '}
          {problems.length > 0 && !tried ? (
            <button type="button" className="text-green underline" onClick={() => setTried(true)}>
              {say('workshop:showThem')}
            </button>
          ) : null}
          {Object.keys(proof.answers).length > 0 ? (
            <button
              type="button"
              className="ml-3 text-green underline"
              onClick={() => {
                proof.clear();
                setTried(false);
              }}
            >
              {say('workshop:clearAnswers')}
            </button>
          ) : null}
        </p>
        {tried
          ? problems
              .filter((problem) => problem.field === 'form')
              .map((problem) => (
                <p key={told(problem.message)} className="mt-1 font-semibold text-brick">
                  {told(problem.message)}
                </p>
              ))
          : null}
      </div>
      {over && one ? <WouldChange over={over} facts={facts} /> : null}
      <Computed draft={draft} proof={proof} />
      <Away draft={draft} proof={proof} />
      {one ? null : form.register.holds === 'things' ? (
        <p className="mt-3 text-[13px]">{say('workshop:thingInUse')}</p>
      ) : (
        <p className="mt-3 text-[13px]">
          {rows.length > 1
            ? say('workshop:routedRows', { rows: rows.map(String), team, count: routed.outcome.workingDays })
            : say(routed.isOtherwise ? 'workshop:routedLast' : 'workshop:routedRow', {
                ...{ row: routed.row, team, count: routed.outcome.workingDays },
              })}{' '}
          {asked
            ? say('workshop:withApproval', { steps: asked.steps.map(({ label }) => label) })
            : say('workshop:withoutApproval')}{' '}
          <Why about={say('workshop:whyThisRow')}>
            <RowReasons rows={routed.reasons} />
          </Why>
        </p>
      )}
      <TrialButton form={form} proof={proof} editing={editing} />
    </>
  );
}

/** What the answers would change of what is there. */
function WouldChange({ over: { changes, updating }, facts }: { over: Over; facts: ProofState['facts'] }) {
  const nameOf = namesAround(facts);
  const shown = (field: Field, value: FieldValue | undefined): string =>
    value === undefined ? '–' : told(sayValue(field, value, nameOf));
  return (
    <div className="mt-3 text-[13px]" aria-live="polite">
      <p className="text-soft">
        {changes.length === 0 ? say('workshop:wouldChangeNothing') : say('workshop:wouldChange')}
      </p>
      <ul>
        {changes.map(({ field, before, after }) => (
          <li key={field.key} className="border-b border-rule py-1 whitespace-pre-line">
            {say('desk:fromTo', { label: field.label, before: shown(field, before), after: shown(field, after) })}
          </li>
        ))}
      </ul>
      <p className="mt-1 text-soft">
        {updating.updates.waits && changes.length > 0 ? say('workshop:wouldWait') : ''} {say('workshop:overAsYouRead')}
      </p>
    </div>
  );
}

const NO_PROBLEM: readonly Problem[] = [];

interface OnPage {
  readonly page: Extract<ShownPart, { part: 'page' }> | null;
  readonly parts: readonly ShownPart[];
}

/** The parts by the page they stand on. */
function onPages(parts: readonly ShownPart[]): readonly OnPage[] {
  const pages: { page: OnPage['page']; parts: ShownPart[] }[] = [];
  for (const part of parts) {
    if (part.part === 'page') pages.push({ page: part, parts: [] });
    else if (pages.length === 0) pages.push({ page: null, parts: [part] });
    else pages.at(-1)?.parts.push(part);
  }
  return pages;
}

/**
 * Values that nobody types: computed, or put by a default or a rule into a field the form does not
 * ask.
 */
function Computed({ draft, proof }: { draft: FormDesign; proof: ProofState }) {
  const asked = new Set(draft.parts.flatMap((part) => (part.part === 'question' ? [part.field] : [])));
  const names = new Map(proof.facts.people.map((person) => [person.id, person.name]));
  const lines = draft.fields.flatMap((field) => {
    const value = proof.completion.values[field.key];
    return asked.has(field.key) || (value === undefined && field.source !== 'computed')
      ? []
      : [{ field, shown: value === undefined ? '' : told(sayValue(field, value, (id) => names.get(id))) }];
  });
  if (lines.length === 0) return null;
  return (
    <dl className="mt-3 text-[13px]">
      {lines.map(({ field, shown }) => (
        <div key={field.key} className="flex justify-between gap-4 border-b border-rule py-1">
          <dt className="text-soft">
            {field.label}{' '}
            <span className="text-[12px]">
              {field.source === 'computed' ? say('workshop:computed') : say('workshop:notOnForm')}
            </span>
          </dt>
          <dd className="text-right whitespace-pre-line tabular-nums">
            {shown || <span className="text-soft">{say('workshop:emptyValue')}</span>}
          </dd>
        </div>
      ))}
    </dl>
  );
}

/** In which edition the form is looked at: as it is given, or another one; with why. */
function InEdition({ draft, proof }: { draft: FormDesign; proof: ProofState }) {
  const { editions = [] } = draft;
  const { given, wanted, setWanted } = proof;
  if (editions.length === 0) return null;
  const called = given.edition === null ? say('editions:plain') : given.edition.name || say('editions:unnamed');
  return (
    <select
      aria-label={say('editions:inWhich')}
      className="max-w-72 pr-4 border-b-[1.5px] border-green bg-transparent font-semibold text-green"
      value={wanted ?? '*'}
      onChange={({ target: { value } }) => setWanted(value === '*' ? null : value)}
    >
      <option value="*">{say('editions:asGiven', { name: called })}</option>
      {editions.map((edition) => (
        <option key={edition.id} value={edition.id}>
          {say('editions:lookedAt', { name: edition.name || say('editions:unnamed') })}
        </option>
      ))}
      <option value="">{say('editions:lookedAt', { name: say('editions:plain') })}</option>
    </select>
  );
}

/** In which of its languages the form is looked at. */
function InALanguage({ draft, proof }: { draft: FormDesign; proof: ProofState }) {
  const written = useWritten();
  const offered = useOtherLanguages().filter((each) => draft.translations?.[each] !== undefined);
  if (offered.length === 0) return null;
  return (
    <select
      aria-label={say('languages:seen')}
      className="max-w-56 border-b-[1.5px] border-green bg-transparent font-semibold text-green"
      value={proof.language ?? ''}
      onChange={({ target: { value } }) => proof.setLanguage(offered.find((each) => each === value) ?? null)}
    >
      <option value="">{say('languages:in', { language: LANGUAGE_NAMES[written] })}</option>
      {offered.map((each) => (
        <option key={each} value={each}>
          {say('languages:in', { language: LANGUAGE_NAMES[each] })}
        </option>
      ))}
    </select>
  );
}

/** The proof as it is now, for the reasons that are open. */
const ProofNow = createContext<ProofState | null>(null);

/** What this person does not meet with these answers, and the rule that says so. */
function Away({ draft, proof }: { draft: FormDesign; proof: ProofState }) {
  const shown = new Set(proof.completion.parts.map(partKey));
  const names = useMemo(
    () => new Map(questionsOf(draft.parts).map(({ field }) => [field, partName(draft, field)])),
    [draft],
  );
  const away = [...names].filter(([key]) => !shown.has(key));
  if (away.length === 0) return null;
  return (
    <ProofNow.Provider value={proof}>
      <div className="mt-3 text-[13px]">
        <p className="text-soft">{say('workshop:hiddenNow')}</p>
        <ul>
          {away.map(([key, name]) => (
            <AwayLine key={key} field={key} name={name} />
          ))}
        </ul>
      </div>
    </ProofNow.Provider>
  );
}

const AwayLine = memo(function AwayLine({ field, name }: { field: string; name: string }) {
  useLanguage();
  return (
    <li className="flex justify-between gap-3 border-b border-rule py-1">
      {name}
      <Why about={say('workshop:isHidden', { name })}>
        <BecauseOf away={field} />
      </Why>
    </li>
  );
});

/** The rules by which a question is away, with what they found. */
function BecauseOf({ away: key }: { away: string }) {
  const proof = useContext(ProofNow);
  if (!proof) return null;
  const { completion, scope, slots, draft } = proof;
  const around = [key, ...placed(draft, key)];
  const rules = completion.rules.filter(({ rule }) =>
    [...rule.then, ...rule.otherwise].some(
      (action) =>
        action.do === 'jump' ||
        ((action.do === 'show' || action.do === 'hide') && action.parts.some((each) => around.includes(each))),
    ),
  );
  if (rules.length === 0) return <p>{say('workshop:staffListHidden')}</p>;
  return rules.map(({ rule }) => {
    const parsed = parseExpression(rule.when);
    return (
      <div key={rule.id} className="mt-2 first:mt-0">
        <p>
          <b>{rule.name}</b>: {told(ruleInWords(rule, draft, scope))}
        </p>
        {parsed.ok ? <Reasons of={explain(parsed.value, scope, slots)} /> : null}
      </div>
    );
  });
}

/** The section and the page a question stands in. */
function placed(draft: FormDesign, key: string): readonly string[] {
  let [section, page] = ['', ''];
  for (const part of draft.parts) {
    if (part.part === 'page') [page, section] = [part.id, ''];
    else if (part.part === 'section') section = part.id;
    if (partKey(part) === key) break;
  }
  return [section, page].filter(Boolean);
}

/** That whoever sits there is led elsewhere by their edition. */
function Leads({ elsewhere, byAnswers = false }: { elsewhere: Elsewhere; byAnswers?: boolean }) {
  const { data } = workshopApi.useFormsQuery();
  return (
    <p className="mt-3 border-l-[3px] border-brass-mark bg-brass-wash px-3 py-2">
      {say(byAnswers ? 'editions:proofLeadsByAnswers' : 'editions:proofLeads', {
        to: ledTo(elsewhere, data?.forms ?? []),
      })}
    </p>
  );
}
