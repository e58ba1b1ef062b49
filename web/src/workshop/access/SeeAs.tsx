import type { AnswerOf, BodyOf } from '@tolvek/contract';
import { useId, useState } from 'react';
import { Button } from '../../ui/Button.tsx';
import { Trouble } from '../../ui/Trouble.tsx';
import { say, told } from '../../wire/words.ts';
import { workshopApi } from '../endpoints.ts';
import { Chosen, type One, OnePerson } from './Chosen.tsx';
import { toggled } from './planEdits.ts';
import { SideBySide } from './SideBySide.tsx';
import type { Plan } from './usePlan.ts';
import { Because, LOOKS } from './WhoReads.tsx';

const EYES = ['person', 'groups', 'nobody'] as const;
type Seen = AnswerOf<'seeAs'>;
type As = BodyOf<'seeAs'>['as'];

/** A real request through the eyes of another, by the plan in force or the draft, at any stage. Whoever looks is told that it is noted. */
export function SeeAs({ plan }: { plan: Plan }) {
  const id = useId();
  const [number, setNumber] = useState('');
  const [eyes, setEyes] = useState<(typeof EYES)[number]>('person');
  const [person, setPerson] = useState<One | null>(null);
  const [groups, setGroups] = useState<readonly string[]>([]);
  const [by, setBy] = useState<'force' | 'draft'>('force');
  const [stage, setStage] = useState('');
  /** `*`: the edition that they are given; empty: the form as it is. */
  const [edition, setEdition] = useState('*');
  const { data: ground } = workshopApi.useGroundQuery();
  const [other, setOther] = useState('');
  const [look, { data, error, isLoading, originalArgs }] = workshopApi.useSeeAsMutation();
  const [lookBeside, beside] = workshopApi.useSeeAsMutation();
  const as: As | undefined =
    eyes === 'nobody' ? null : eyes === 'groups' ? { groups: [...groups] } : person ? { person: person[0] } : undefined;
  const isReady = number.trim() !== '' && as !== undefined && (eyes !== 'groups' || groups.length > 0);
  const isKnown = data !== undefined && data.number === number.trim().toUpperCase();
  const editions = isKnown ? data.editions : [];
  const send = (event: React.FormEvent): void => {
    event.preventDefault();
    if (!isReady || as === undefined) return;
    const body = {
      ...{ as, plan: by, stage: stage === '' ? null : stage },
      // Of another form it is not known what editions it has.
      ...(isKnown && edition !== '*' ? { edition: edition === '' ? null : edition } : {}),
    };
    void look({ number: number.trim(), body });
    if (other.trim() === '') beside.reset();
    else void lookBeside({ number: other.trim(), body });
  };
  const wrong = error ?? beside.error;
  const isDraft = originalArgs?.body.plan === 'draft';
  return (
    <section aria-labelledby={`${id}-head`}>
      <h2 id={`${id}-head`} className="section-head mt-8">
        {say('accessPlan:seeAs')}
      </h2>
      <p className="mt-1 text-[13px] text-soft">{say('accessPlan:seeAsHint')}</p>
      <form onSubmit={send} className="mt-2 flex flex-wrap items-end gap-x-3 gap-y-2">
        <span>
          <label htmlFor={`${id}-number`} className="block text-[13px] text-soft">
            {say('accessPlan:seeNumber')}
          </label>
          <input
            id={`${id}-number`}
            className="input w-36"
            value={number}
            maxLength={20}
            onChange={(event) => setNumber(event.target.value)}
          />
        </span>
        <span>
          <label htmlFor={`${id}-other`} className="block text-[13px] text-soft">
            {say('accessPlan:seeBeside')}
          </label>
          <input
            id={`${id}-other`}
            className="input w-36"
            value={other}
            maxLength={20}
            onChange={(event) => setOther(event.target.value)}
          />
        </span>
        <select
          className="input w-auto"
          aria-label={say('accessPlan:seeWhose')}
          value={eyes}
          onChange={(event) => setEyes(event.target.value as 'person')}
        >
          {EYES.map((each) => (
            <option key={each} value={each}>
              {say(`accessPlan:eyes.${each}`)}
            </option>
          ))}
        </select>
        {eyes === 'person' ? <OnePerson id={id} person={person} set={setPerson} /> : null}
        {eyes === 'groups' ? (
          <Chosen
            id={id}
            groups={ground?.groups ?? []}
            onlyGroups
            chosen={groups}
            toggle={(key) => setGroups(toggled(groups, key))}
            label={say('accessPlan:seeGroups')}
          />
        ) : null}
        <select
          className="input w-auto"
          aria-label={say('accessPlan:byWhich')}
          value={by}
          onChange={(event) => setBy(event.target.value as 'force')}
        >
          <option value="force">{say('accessPlan:by.force')}</option>
          <option value="draft">{say('accessPlan:by.draft')}</option>
        </select>
        <select
          className="input w-auto"
          aria-label={say('accessPlan:seeStage')}
          value={stage}
          onChange={(event) => setStage(event.target.value)}
        >
          <option value="">{say('accessPlan:whereItStands')}</option>
          {plan.stages.map(({ key, label }) => (
            <option key={key} value={key}>
              {say('accessPlan:asIfAt', { stage: label })}
            </option>
          ))}
        </select>
        {editions.length > 0 ? (
          <select
            className="input w-auto max-w-64"
            aria-label={say('editions:inWhich')}
            value={edition}
            onChange={(event) => setEdition(event.target.value)}
          >
            <option value="*">{say('accessPlan:editionGiven')}</option>
            {editions.map(({ id: key, name }) => (
              <option key={key} value={key}>
                {say('editions:lookedAt', { name: name || say('editions:unnamed') })}
              </option>
            ))}
            <option value="">{say('editions:lookedAt', { name: say('editions:plain') })}</option>
          </select>
        ) : null}
        <Button type="submit" disabled={!isReady || isLoading || beside.isLoading}>
          {say('accessPlan:look')}
        </Button>
      </form>
      {wrong ? (
        <div className="mt-3">
          <Trouble error={wrong} />
        </div>
      ) : null}
      {data && !wrong ? (
        beside.data ? (
          <SideBySide seen={[data, beside.data]} isDraft={isDraft} />
        ) : (
          <Through seen={data} isDraft={isDraft} />
        )
      ) : null}
    </section>
  );
}

/** As what somebody reads a request. */
const SEEN_AS = {
  sheet: 'accessPlan:seesSheet',
  own: 'accessPlan:seesOwn',
  given: 'accessPlan:seesGiven',
  nothing: 'accessPlan:seesNothing',
} as const;

function Through({ seen, isDraft }: { seen: Seen; isDraft: boolean }) {
  const { who, sees, number, stage, subject, inLists, inEmails, fields, edition, mayExport } = seen;
  const mark = say(isDraft ? 'accessPlan:seenByDraft' : 'accessPlan:seenBy', { who: told(who), number, stage });
  return (
    <div className="mt-3 border border-brass-mark bg-sheet" aria-live="polite">
      <p className="bg-brass-wash px-3 py-2">
        <strong className="first-letter:uppercase">{mark}</strong> {say('accessPlan:seenOnly')}
        {edition === null ? null : <span className="block">{say('accessPlan:inEdition', { edition })}</span>}
      </p>
      <div className="px-3 pb-3">
        {sees === 'nothing' ? <p className="mt-3">{say('accessPlan:seesNothing')}</p> : null}
        {subject === null ? null : (
          <>
            <p className="mt-3 font-serif text-[19px]">{told(subject)}</p>
            <p className="text-[13px] text-soft">
              {say(SEEN_AS[sees])}
              {inLists !== null && told(inLists) !== told(subject)
                ? ` ${say('accessPlan:calledInLists', { subject: told(inLists) })}`
                : ''}
              {inEmails !== null && told(inEmails) !== told(subject)
                ? ` ${say('accessPlan:calledInEmails', { subject: told(inEmails) })}`
                : ''}
            </p>
          </>
        )}
        <dl className="mt-2">
          {fields.map(({ key, label, level, rule, shown, layout, isMasked, notInEmails, notInFiles }) => (
            <div
              key={key}
              className="grid grid-cols-[minmax(0,12rem)_minmax(0,1fr)_minmax(0,16rem)] gap-x-4 border-b border-rule py-1.5"
            >
              <dt className="text-soft">{label}</dt>
              <dd className="whitespace-pre-line">
                {isMasked ? (
                  <span className="text-soft italic">{say('accessPlan:masked')}</span>
                ) : level === 'hidden' ? (
                  <span className="font-semibold text-brick">{say('accessPlan:cell.hidden')}</span>
                ) : (
                  told(shown) || <span className="text-soft">–</span>
                )}
              </dd>
              <dd className="text-[13px]">
                {level === 'hidden' ? null : <span className={LOOKS[level]}>{say(`accessPlan:cell.${level}`)}</span>}
                <Because rule={rule} isAlone={level === 'hidden'} />
                {layout !== null && level !== 'hidden' ? (
                  <span className="block text-soft">{say(`accessPlan:layout.${layout}`)}</span>
                ) : null}
                {notInEmails ? <span className="block text-soft">{say('accessPlan:notInEmails')}</span> : null}
                {notInFiles && mayExport ? (
                  <span className="block text-soft">{say('accessPlan:notInFiles')}</span>
                ) : null}
              </dd>
            </div>
          ))}
        </dl>
        {sees === 'sheet' && !mayExport ? (
          <p className="mt-2 text-[13px] text-soft">{say('accessPlan:mayNotExport')}</p>
        ) : null}
      </div>
    </div>
  );
}
