import type { AnswerOf } from '@tolvek/contract';
import {
  ACCENT_KEYS,
  ACCENTS,
  type DeskSettings,
  type FirstDay,
  KEPT_DAYS,
  type KeptThing,
  LINK_DAYS,
  type LinkUse,
} from '@tolvek/core/settings';
import { type ReactNode, useEffect, useState } from 'react';
import { useLocation } from 'react-router';
import { toast } from 'sonner';
import { PictureInput } from '../../start/PictureInput.tsx';
import { Button } from '../../ui/Button.tsx';
import { ChoiceLine } from '../../ui/ChoiceLine.tsx';
import { Line } from '../../ui/Line.tsx';
import { TextLine } from '../../ui/TextLine.tsx';
import { Trouble, WholeTrouble } from '../../ui/Trouble.tsx';
import { useTitle } from '../../ui/useTitle.ts';
import { ZoneLine } from '../../ui/ZoneLine.tsx';
import { meApi } from '../../wire/me.ts';
import { problemOf, refusalInWords } from '../../wire/problem.ts';
import { LANGUAGE_NAMES, LANGUAGES, say, told } from '../../wire/words.ts';
import { DeskEmails } from './DeskEmails.tsx';
import { DeskTexts } from './DeskTexts.tsx';
import { groundApi } from './endpoints.ts';
import { GroundHistory } from './GroundHistory.tsx';
import { States } from './States.tsx';
import { TestEmail } from './TestEmail.tsx';

const FIRST_DAYS: readonly FirstDay[] = ['monday', 'saturday', 'sunday'];

/** The desk itself: its names, what it speaks, who emails come from, and how long links work. */
export function DeskPage() {
  useTitle(say('ground:desk'));
  const { data, error, refetch } = groundApi.useDeskSettingsQuery();
  return (
    <main className="min-h-0 overflow-auto px-[26px] pt-5 pb-10">
      {error ? <Trouble error={error} again={refetch} /> : null}
      {data ? <OpenDesk key={data.version} opened={data} /> : null}
    </main>
  );
}

function OpenDesk({ opened }: { opened: AnswerOf<'deskSettings'> }) {
  const { hash } = useLocation();
  const { data: calendars } = groundApi.useCalendarsQuery();
  const [desk, setDesk] = useState<DeskSettings>(opened.desk);
  const [save, { isLoading, error }] = groundApi.useChangeDeskMutation();
  const set = (change: Partial<DeskSettings>): void => setDesk((before) => ({ ...before, ...change }));
  const changed = JSON.stringify(desk) !== JSON.stringify(opened.desk);
  // A setting that was looked for is where one goes on.
  useEffect(() => {
    if (hash) document.getElementById(`desk ${decodeURIComponent(hash.slice(1))}`)?.focus();
  }, [hash]);
  const put = async (next: DeskSettings): Promise<void> => {
    const saved = await save({ version: opened.version, body: { desk: next, note: '' } });
    if (!('error' in saved)) toast(say('ground:deskSaved'));
  };
  const text = (place: string, value: string, change: (typed: string) => Partial<DeskSettings>): Field => ({
    ...{ id: `desk ${place}`, value, change: (typed) => set(change(typed)) },
  });
  return (
    <div className="max-w-[46rem]">
      <form
        onSubmit={(event) => {
          event.preventDefault();
          void put(desk);
        }}
        noValidate
      >
        <div className="flex flex-wrap items-baseline justify-between gap-3">
          <h1>{say('ground:desk')}</h1>
          <span className="flex gap-2">
            {changed ? <Button onClick={() => setDesk(opened.desk)}>{say('ground:undoChanges')}</Button> : null}
            <Button look="main" type="submit" disabled={!changed || isLoading}>
              {isLoading ? say('workshop:saving') : say('workshop:saveChanges')}
            </Button>
          </span>
        </div>
        <p className="text-soft">{say('ground:deskHint')}</p>
        <WholeTrouble error={error} />
        <h2 className="section-head mt-6">{say('ground:deskNames')}</h2>
        <Pair>
          <Text label={say('settings:theName')} error={error} of={text('name', desk.name, (name) => ({ name }))} />
          <Text
            label={say('settings:theOrganisation')}
            error={error}
            of={text('organisation', desk.organisation, (organisation) => ({ organisation }))}
          />
        </Pair>
        <Logo />
        <AccentChoice chosen={desk.accent} choose={(accent) => set({ accent })} />
        <h2 className="section-head mt-8">{say('ground:deskTime')}</h2>
        <Pair>
          <ZoneLine
            id="desk zone"
            label={say('settings:theZone')}
            hint={say('ground:zoneHint')}
            error={error}
            field="zone"
            value={desk.zone}
            choose={(zone) => set({ zone })}
          />
          <ChoiceLine
            id="desk language"
            label={say('settings:theLanguage')}
            hint={say('start:languageHint')}
            error={error}
            field="language"
            options={LANGUAGES.map((key) => ({ key, label: LANGUAGE_NAMES[key] }))}
            value={desk.language}
            choose={(language) => set({ language })}
          />
          <ChoiceLine
            id="desk calendar"
            label={say('settings:theCalendar')}
            hint={say('ground:calendarHint')}
            error={error}
            field="calendar"
            options={[
              { key: '', label: say('ground:firstCalendar') },
              ...(calendars?.calendars ?? []).map(({ key, name }) => ({ key, label: name })),
            ]}
            value={desk.calendar}
            choose={(calendar) => set({ calendar })}
          />
          <ChoiceLine
            id="desk firstDay"
            label={say('settings:theFirstDay')}
            error={error}
            field="firstDay"
            options={FIRST_DAYS.map((key) => ({ key, label: say(`calendars:${key}`) }))}
            value={desk.firstDay}
            choose={(firstDay) => set({ firstDay })}
          />
        </Pair>
        <h2 className="section-head mt-8">{say('ground:deskEmails')}</h2>
        <Pair>
          <Text
            label={say('settings:theSender')}
            hint={say('ground:senderHint', { name: desk.name })}
            error={error}
            of={text('sender.name', desk.sender.name, (name) => ({ sender: { ...desk.sender, name } }))}
          />
          <Text
            label={say('settings:theSenderAddress')}
            hint={say('start:senderHint')}
            error={error}
            of={text('sender.address', desk.sender.address, (address) => ({ sender: { ...desk.sender, address } }))}
          />
        </Pair>
        <Line
          id="desk signature"
          label={say('settings:theSignature')}
          hint={say('ground:signatureHint', { names: [desk.name, desk.organisation].filter(Boolean).join(', ') })}
          error={error}
          field="signature"
        >
          {(about) => (
            <textarea
              {...about}
              rows={3}
              className="input max-w-[34rem]"
              value={desk.signature}
              onChange={(event) => set({ signature: event.target.value })}
            />
          )}
        </Line>
        <DeskTexts texts={desk.texts} set={(texts) => set({ texts })} />
        <DeskEmails hears={desk.hears} set={(hears) => set({ hears })} />
        <h2 className="section-head mt-8">{say('ground:deskElsewhere')}</h2>
        <Line
          id="desk hosts"
          label={say('settings:theHosts')}
          hint={say('ground:hostsHint')}
          error={error}
          field="hosts"
        >
          {(about) => (
            <textarea
              {...about}
              rows={2}
              className="input max-w-[34rem]"
              value={(desk.hosts ?? []).join('\n')}
              onChange={({ target: { value } }) => set({ hosts: value === '' ? [] : value.split('\n') })}
            />
          )}
        </Line>
        <h2 className="section-head mt-8">{say('ground:deskLinks')}</h2>
        <p className="mt-2 text-soft">{say('ground:deskLinksHint')}</p>
        <Pair>
          {(Object.keys(LINK_DAYS) as LinkUse[]).map((use) => (
            <Days
              key={use}
              place={`links.${use}`}
              label={say(`settings:theLinks.${use}`)}
              error={error}
              range={LINK_DAYS[use]}
              value={desk.links[use]}
              set={(days) => set({ links: { ...desk.links, [use]: days } })}
            />
          ))}
        </Pair>
        <h2 className="section-head mt-8">{say('ground:deskKeeps')}</h2>
        <p className="mt-2 text-soft">{say('ground:deskKeepsHint')}</p>
        <Pair>
          {(Object.keys(KEPT_DAYS) as KeptThing[]).map((thing) => (
            <Days
              key={thing}
              place={`keeps.${thing}`}
              label={say(`settings:theKept.${thing}`)}
              error={error}
              range={KEPT_DAYS[thing]}
              value={desk.keeps[thing]}
              set={(days) => set({ keeps: { ...desk.keeps, [thing]: days } })}
            />
          ))}
        </Pair>
      </form>
      <TestEmail saved={!changed} />
      <DeskStates opened={opened} put={(state) => void put(state)} />
      {opened.history.length > 0 ? <GroundHistory lines={opened.history} /> : null}
    </div>
  );
}

/** What stands in place of the product’s name at the Front desk; set at once. */
function Logo() {
  const { data: me } = meApi.useMeQuery();
  const [put, { isLoading }] = groundApi.useSetLogoMutation();
  const logo = me?.desk.logo ?? null;
  const set = async (picture: string | null): Promise<void> => {
    const done = await put({ body: { picture } });
    if ('error' in done) toast.error(refusalInWords(problemOf(done.error)));
  };
  return (
    <div className="mt-4">
      <p className="font-semibold">{say('pictures:logo')}</p>
      <p className="text-soft">{say('pictures:logoHint')}</p>
      <PictureInput
        src={logo && `/api/desk/logo?v=${logo}`}
        name={say('pictures:logo')}
        box={{ width: 480, height: 140, fills: false }}
        busy={isLoading}
        set={(picture) => void set(picture)}
      />
    </div>
  );
}

interface DaysProps {
  readonly place: string;
  readonly label: string;
  readonly error: unknown;
  readonly range: readonly [number, number];
  readonly value: number;
  readonly set: (days: number) => void;
}

/** So many days, within what is possible. */
const Days = ({ place, label, error, range: [least, most], value, set }: DaysProps) => (
  <Line id={`desk ${place}`} label={label} error={error} field={place}>
    {(about) => (
      <span className="flex items-baseline gap-2">
        <input
          {...about}
          type="number"
          min={least}
          max={most}
          className="input w-24"
          value={value}
          onChange={(event) => set(Math.round(Number(event.target.value)))}
        />
        <span className="text-soft">{say('ground:daysFrom', { least, most })}</span>
      </span>
    )}
  </Line>
);

const Pair = ({ children }: { children: ReactNode }) => (
  <div className="grid items-start gap-x-8 sm:grid-cols-2">{children}</div>
);

interface Field {
  readonly id: string;
  readonly value: string;
  readonly change: (typed: string) => void;
}

function Text({ label, hint, error, of }: { label: string; hint?: string; error: unknown; of: Field }) {
  return (
    <TextLine
      id={of.id}
      label={label}
      {...(hint ? { hint } : {})}
      error={error}
      field={of.id.slice('desk '.length)}
      value={of.value}
      change={of.change}
    />
  );
}

/** One colour of the palette, as a swatch with its name. */
function AccentChoice({
  chosen,
  choose,
}: {
  chosen: DeskSettings['accent'];
  choose: (accent: DeskSettings['accent']) => void;
}) {
  return (
    <fieldset className="mt-5">
      <legend className="font-semibold">{say('settings:theAccent')}</legend>
      <p className="text-soft">{say('ground:accentHint')}</p>
      <div className="mt-2 flex flex-wrap gap-x-5 gap-y-2">
        {ACCENT_KEYS.map((key, place) => (
          <label key={key} className="flex items-center gap-2">
            <input
              type="radio"
              name="accent"
              className="accent-green"
              {...(place === 0 ? { id: 'desk accent' } : {})}
              checked={chosen === key}
              onChange={() => choose(key)}
            />
            <span
              aria-hidden
              className="inline-block h-5 w-8 rounded-sm border border-rule-strong"
              style={{ background: `light-dark(${ACCENTS[key].light.ink}, ${ACCENTS[key].dark.ink})` }}
            />
            {say(`ground:accent.${key}`)}
          </label>
        ))}
      </div>
    </fieldset>
  );
}

/** What was set before, by whom and when, and the way back to it. */
function DeskStates({ opened, put }: { opened: AnswerOf<'deskSettings'>; put: (state: DeskSettings) => void }) {
  return (
    <section className="mt-10">
      <h2 className="section-head">{say('ground:whatWasSet')}</h2>
      <States
        states={opened.states}
        back={(state) => put(state.desk)}
        about={({ changes }) =>
          changes.map((change) => (
            <span key={told(change.words)} className="block">
              {told(change.words)}
              {change.before !== '' || change.after !== '' ? (
                <span className="text-soft">
                  {' '}
                  {say('ground:fromTo', { before: change.before || '–', after: change.after || '–' })}
                </span>
              ) : null}
            </span>
          ))
        }
      />
    </section>
  );
}
