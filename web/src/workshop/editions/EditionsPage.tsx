import type { AnswerOf } from '@tolvek/contract';
import { conditionInWords, parseExpression } from '@tolvek/core/expression';
import { ASKING, differenceInWords, type Edition, withOwnParts } from '@tolvek/core/form';
import { audienceInWords, isRelation, wordsIn } from '@tolvek/core/people';
import { useState } from 'react';
import { Button } from '../../ui/Button.tsx';
import { say, told } from '../../wire/words.ts';
import { useBinder } from '../binder.ts';
import { workshopApi } from '../endpoints.ts';
import { FindingLine } from '../Findings.tsx';
import { MoveButtons } from '../MoveButtons.tsx';
import { Compared } from './Compared.tsx';
import { EditionEditor, useEditionScope } from './EditionEditor.tsx';
import {
  addEdition,
  changeEdition,
  freshEditionId,
  ledTo,
  likeEdition,
  moveEdition,
  removeEdition,
} from './editionEdits.ts';

type Given = AnswerOf<'editionsGiven'>;

/** The stage at which it shows who is given an edition: while the form is filled in, unless it is not given then. */
const stageOf = ({ stages }: Edition): string => (!stages || stages.includes(ASKING) ? ASKING : (stages[0] ?? ASKING));

/** People by id, of the words that audiences name. */
const peopleIn = (words: Given['words'] | undefined): Readonly<Record<string, string>> =>
  Object.fromEntries(
    Object.entries(words ?? {}).flatMap(([word, name]) => (word.startsWith('@') ? [[word.slice(1), told(name)]] : [])),
  );

/** The editions of a form: in order, for whom, what differs, and how many are given each. */
export function EditionsPage() {
  const { editing, form } = useBinder();
  const { draft, change } = editing;
  const editions = draft.editions ?? [];
  const [open, setOpen] = useState<string | null>(null);
  const { data } = workshopApi.useEditionsGivenQuery({ key: form.key, query: {} });
  const add = (): void => {
    const id = freshEditionId(draft);
    change(addEdition(id, ''));
    setOpen(id);
  };
  return (
    <>
      <div className="flex items-baseline justify-between gap-4">
        <p className="text-soft">{say('editions:intro')}</p>
        <Button onClick={add}>{say('editions:new')}</Button>
      </div>
      {editions.length === 0 ? <p className="max-w-[38rem] py-6 text-soft">{say('editions:none')}</p> : null}
      <ol className="mt-3">
        {editions.map((edition, index) => (
          <Item
            key={edition.id}
            {...{ edition, index }}
            of={editions.length}
            isOpen={open === edition.id}
            setOpen={(isOpen) => setOpen(isOpen ? edition.id : null)}
          />
        ))}
        {editions.length > 0 ? (
          <li className="grid grid-cols-[28px_1fr_84px] border-t border-rule py-3">
            <i className="font-serif text-[16px] text-soft not-italic">–</i>
            <div>
              <h2>{say('editions:plain')}</h2>
              <p>{say('editions:plainHint')}</p>
            </div>
            {data ? <Count n={data.plain.gets} /> : null}
          </li>
        ) : null}
      </ol>
      {data && data.moves.length > 0 ? <Moves data={data} editions={editions} /> : null}
      {editions.length > 0 ? <Compared /> : null}
    </>
  );
}

const Count = ({ n, note }: { n: number; note?: string }) => (
  <div className="text-right">
    <span className={`font-serif text-[22px] ${n === 0 ? 'text-brick' : ''}`}>{n}</span>
    <small className="block text-[12px] text-soft">{note ?? say('editions:people', { count: n })}</small>
  </div>
);

interface ItemProps {
  readonly edition: Edition;
  readonly index: number;
  readonly of: number;
  readonly isOpen: boolean;
  readonly setOpen: (isOpen: boolean) => void;
}

function Item({ edition, index, of, isOpen, setOpen }: ItemProps) {
  const { editing, form, keeping } = useBinder();
  const { draft, change, proof } = editing;
  const scope = useEditionScope();
  const stage = stageOf(edition);
  const { data } = workshopApi.useEditionsGivenQuery({ key: form.key, query: stage === ASKING ? {} : { stage } });
  const { data: forms } = workshopApi.useFormsQuery(undefined, { skip: !edition.elsewhere });
  const mine = data?.editions.find((each) => each.id === edition.id);
  const nameOf = (word: string) => data?.words[word] ?? '…';
  const { audience, stages, when, name, on } = edition;
  const byRequest = wordsIn({ ...audience, outOf: [] }).some(isRelation) || audience.requester === 'in';
  const parsed = when === '' ? null : parseExpression(when);
  const called = name || say('editions:unnamed');
  const stageLabel = (key: string): string =>
    key === ASKING ? say('editions:whileAsking') : (form.stages.find((each) => each.key === key)?.label ?? key);
  const findings = keeping.findings.filter(({ page, at }) => page === 'editions' && at === edition.id);
  return (
    <li
      id={`at-${edition.id}`}
      className={`border-t border-rule py-3 ${isOpen ? '-mx-3.5 border border-l-[3px] border-green bg-sheet px-3.5' : ''}`}
    >
      <div className={`grid grid-cols-[28px_1fr_84px] ${on ? '' : 'text-soft'}`}>
        <i className="font-serif text-[16px] text-soft not-italic">{index + 1}</i>
        <div className="min-w-0">
          <h2 className="flex flex-wrap items-baseline gap-x-3">
            <button
              type="button"
              className="text-left hover:text-green"
              aria-expanded={isOpen}
              onClick={() => setOpen(!isOpen)}
            >
              {called}
            </button>
            {on ? null : <span className="text-[13px] font-normal text-soft">{say('editions:isOff')}</span>}
          </h2>
          <p>
            {say('editions:for', { who: told(audienceInWords(audience, nameOf)) })}
            {stages ? `, ${say('editions:atStages', { stages: stages.map(stageLabel) })}` : ''}
            {when === ''
              ? ''
              : `, ${say('editions:whenIs', { condition: parsed?.ok ? told(conditionInWords(parsed.value, scope)) : when })}`}
            {mine && mine.caught.length > 0 ? (
              <span className="block text-brick">{say('editions:catches', { names: mine.caught })}</span>
            ) : null}
          </p>
          {isOpen ? null : (
            <ul className="mt-1.5">
              {edition.differences.map((difference) => {
                const words = told(differenceInWords(difference, withOwnParts(draft, edition), proof.scope));
                return (
                  <li key={words} className="border-l-2 border-rule-strong py-0.5 pl-3">
                    {words}
                  </li>
                );
              })}
              {edition.elsewhere ? (
                <li className="border-l-2 border-rule-strong py-0.5 pl-3">
                  {say('editions:leads', { to: ledTo(edition.elsewhere, forms?.forms ?? []) })}
                </li>
              ) : null}
              {edition.readOnly || edition.opens ? (
                <li className="border-l-2 border-rule-strong py-0.5 pl-3">
                  {say(edition.readOnly ? 'editions:readsOnly' : 'editions:opensToChange')}
                </li>
              ) : null}
            </ul>
          )}
        </div>
        {mine && !byRequest ? (
          <Count
            n={mine.gets + mine.byAnswers}
            {...(mine.byAnswers > 0
              ? { note: say('editions:ifTheyAnswer') }
              : mine.fits > mine.gets
                ? { note: say('editions:ofFitting', { count: mine.fits }) }
                : {})}
          />
        ) : byRequest ? (
          <small className="text-right text-[12px] text-soft">{say('editions:byRequest')}</small>
        ) : null}
      </div>
      {isOpen ? <EditionEditor edition={edition} people={peopleIn(data?.words)} close={() => setOpen(false)} /> : null}
      <div className="mt-2 flex flex-wrap items-center gap-x-4 pl-7 text-[13px]">
        <MoveButtons
          index={index}
          of={of}
          words={[say('editions:earlier', { name: called }), say('editions:later', { name: called })]}
          move={(way) => change(moveEdition(edition.id, way))}
        />
        {isOpen ? null : (
          <button type="button" className="text-green underline" onClick={() => setOpen(true)}>
            {say('editions:edit')}
          </button>
        )}
        <button
          type="button"
          className="text-green underline"
          onClick={() => change(changeEdition(edition.id, (before) => ({ ...before, on: !before.on })))}
        >
          {say(on ? 'editions:switchOff' : 'editions:switchOn')}
        </button>
        <button
          type="button"
          className="text-green underline"
          onClick={() =>
            change(likeEdition(edition.id, freshEditionId(draft), say('editions:copyOf', { name: called })))
          }
        >
          {say('editions:copy')}
        </button>
        <button type="button" className="text-brick underline" onClick={() => change(removeEdition(edition.id))}>
          {say('editions:remove')}
        </button>
      </div>
      {findings.map((finding) => (
        <FindingLine key={told(finding.message)} finding={finding} formKey={form.key} change={change} />
      ))}
    </li>
  );
}

/** Who would be given something else than now. */
function Moves({ data, editions }: { data: Given; editions: readonly Edition[] }) {
  const nameOf = (id: string | null, was: string): string =>
    id === null
      ? say('editions:plain')
      : editions.find((each) => each.id === id)?.name || was || say('editions:unnamed');
  return (
    <section aria-labelledby="moves" className="mt-6">
      <h2 id="moves" className="section-head">
        {say('editions:moves')}
      </h2>
      <ul className="mt-1">
        {data.moves.map(({ from, to, fromName, count, names }) => (
          <li key={`${from} ${to}`} className="border-b border-rule py-1.5">
            {say('editions:move1', { count, from: nameOf(from, fromName), to: nameOf(to, '') })}
            <span className="block text-[13px] text-soft">
              {say(count > names.length ? 'editions:andMore' : 'editions:names', { names, more: count - names.length })}
            </span>
          </li>
        ))}
      </ul>
    </section>
  );
}
