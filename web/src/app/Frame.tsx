import type { AnswerOf } from '@tolvek/contract';
import { lazy, Suspense, useEffect, useRef, useState } from 'react';
import { useDispatch } from 'react-redux';
import { NavLink, Outlet, useLocation } from 'react-router';
import { useNewsWanted } from '../ui/news.ts';
import { api } from '../wire/api.ts';
import { meApi } from '../wire/me.ts';
import { LANGUAGE_NAMES, LANGUAGES, language, loadWords, say, setDesk, speak, useLanguage } from '../wire/words.ts';
import { Wordmark } from './Wordmark.tsx';

// What floats comes a moment after the page, or when it is pressed: a requester on a phone can type before it is there.
const Bell = lazy(() => import('./Bell.tsx').then((module) => ({ default: module.Bell })));
const DemoClock = lazy(() => import('./DemoClock.tsx').then((module) => ({ default: module.DemoClock })));
const PersonMenu = lazy(() => import('./PersonMenu.tsx').then((module) => ({ default: module.PersonMenu })));
const FindSheet = lazy(async () => {
  const [module] = await Promise.all([import('../find/FindSheet.tsx'), loadWords('floor'), loadWords('workshop')]);
  return { default: module.FindSheet };
});
const Toasts = lazy(() => import('./Toasts.tsx').then((module) => ({ default: module.Toasts })));

const zone = ({ isActive }: { isActive: boolean }): string =>
  `border-b-[3px] px-0.5 pt-[13px] pb-[10px] no-underline ${isActive ? 'border-green font-semibold text-ink' : 'border-transparent text-soft hover:text-ink'}`;

/** The slim band on top of every page: the three zones, find, the desk's time and who is here. */
export function Frame() {
  const me = useDesk();
  const { pathname } = useLocation();
  const [isFinding, setFinding] = useState(false);
  useFindKey(Boolean(me?.person?.worksFloor), setFinding);
  // A new page begins at its top; pages with panes of their own keep those.
  useEffect(() => {
    if (pathname) scrollTo(0, 0);
  }, [pathname]);
  const person = me?.person ?? null;
  const hasNews = useNewsWanted();
  const inWorkshop = person?.worksWorkshop ?? false;
  const atFrontDesk = !/^\/(floor|workshop|mailroom)/.test(pathname);
  return (
    <>
      <a href="#main" className="sr-only focus:not-sr-only focus:absolute focus:z-10 focus:bg-sheet focus:p-2">
        {say('common:toContent')}
      </a>
      <header className="sticky top-0 z-10 flex h-[46px] items-center gap-4 border-b border-rule-strong bg-sheet px-4 sm:gap-6 sm:px-5 print:hidden">
        <NavLink to="/" className="text-green" aria-label={say('common:homeLink')}>
          {me?.desk.logo && atFrontDesk ? (
            <img
              src={`/api/desk/logo?v=${me.desk.logo}`}
              alt=""
              className="block max-h-[34px] max-w-[120px] rounded-[3px] bg-white p-0.5 sm:max-w-[180px]"
            />
          ) : (
            <Wordmark />
          )}
        </NavLink>
        {person && (person.worksFloor || inWorkshop) ? (
          <nav aria-label={say('common:zones')} className="hidden gap-6 sm:flex">
            <NavLink to="/" className={() => zone({ isActive: atFrontDesk })}>
              {say('common:frontDesk')}
            </NavLink>
            {person.worksFloor ? (
              <NavLink to="/floor" className={zone}>
                {say('common:floor')}
              </NavLink>
            ) : null}
            {inWorkshop ? (
              <NavLink to="/workshop" className={zone}>
                {say('common:workshop')}
              </NavLink>
            ) : null}
          </nav>
        ) : null}
        <div className="ml-auto flex items-center gap-4 sm:gap-6">
          {person?.worksFloor ? (
            <button type="button" className="hidden text-soft lg:inline" onClick={() => setFinding(true)}>
              {say('common:find')}{' '}
              <kbd className="rounded-md border border-b-2 border-rule-strong px-1.5 font-mono text-[11px]">
                {say('common:findKeys')}
              </kbd>
            </button>
          ) : null}
          {me ? me.demo ? <ClockOfDemo time={deskTime(me.desk)} /> : <DeskTime time={deskTime(me.desk)} /> : null}
          {me?.demo ? (
            <NavLink
              to="/mailroom"
              className={({ isActive }) =>
                `hidden no-underline sm:inline ${isActive ? 'font-semibold text-ink' : 'text-soft'}`
              }
            >
              {say('common:mailroom')}
            </NavLink>
          ) : null}
          {person ? (
            <Suspense fallback={<span className="h-8 w-8" />}>
              <Bell />
            </Suspense>
          ) : (
            <LanguageLink />
          )}
          {person ? (
            <Suspense fallback={<span>{person.name}</span>}>
              <PersonMenu person={person} inWorkshop={inWorkshop} demo={Boolean(me?.demo)} />
            </Suspense>
          ) : me ? (
            <NavLink to="/sign-in" className="whitespace-nowrap">
              {say('common:staffSignIn')}
            </NavLink>
          ) : null}
        </div>
      </header>
      <Suspense>
        <div id="main" tabIndex={-1} className="outline-none">
          <Outlet />
        </div>
      </Suspense>
      {isFinding && person ? (
        <Suspense>
          <FindSheet person={person} close={() => setFinding(false)} />
        </Suspense>
      ) : null}
      {person || hasNews ? (
        <Suspense>
          <Toasts />
        </Suspense>
      ) : null}
    </>
  );
}

/** The desk and who is here, with its zone, its colour and their language on the page. */
function useDesk(): AnswerOf<'me'> | undefined {
  const { data: me } = meApi.useMeQuery(undefined, { pollingInterval: 60_000, skipPollingIfUnfocused: true });
  useReadAnew(useLanguage());
  if (me) setDesk(me.desk);
  usePersonsLanguage(me?.person ?? null);
  useAccent(me?.desk.accent);
  return me;
}

/** A page within a page elsewhere: nothing around it, and whatever it leads to opens beside that page. */
export function Bare() {
  useDesk();
  return (
    <div
      onClickCapture={(event) => {
        const link = (event.target as Element).closest('a');
        if (!link?.href || link.hash !== '') return;
        event.preventDefault();
        event.stopPropagation();
        open(link.href, '_blank', 'noopener');
      }}
    >
      <Outlet />
      <p className="mx-auto max-w-[44rem] px-4 pb-6 text-right text-[14px]">
        <LanguageLink />
      </p>
    </div>
  );
}

/** For who has no menu: the other language, by its own name. */
function LanguageLink() {
  const other = LANGUAGES.find((each) => each !== language()) ?? 'en';
  return (
    <button
      type="button"
      lang={other}
      className="text-soft underline underline-offset-4"
      onClick={() => void speak(other)}
    >
      {LANGUAGE_NAMES[other]}
    </button>
  );
}

/** The desk's time in the demo, which moves when it is pressed. */
function ClockOfDemo({ time }: { time: string }) {
  const [isPressed, setPressed] = useState(false);
  const here = (
    <button type="button" className={DEMO_CLOCK} onClick={() => setPressed(true)}>
      {time}
    </button>
  );
  return isPressed ? (
    <Suspense fallback={here}>
      <DemoClock time={time} className={DEMO_CLOCK} />
    </Suspense>
  ) : (
    here
  );
}

const DEMO_CLOCK = 'hidden text-soft underline decoration-dotted underline-offset-4 md:inline';

const DeskTime = ({ time }: { time: string }) => <span className="hidden text-soft md:inline">{time}</span>;

function deskTime({ now, open, until }: AnswerOf<'me'>['desk']): string {
  if (until === null) return say('common:deskClosed', { now });
  return open ? say('common:deskOpenUntil', { now, until }) : say('common:deskClosedUntil', { now, until });
}

/** Pages are read in the language of who is signed in; the first one they read is theirs from then on. */
function usePersonsLanguage(person: AnswerOf<'me'>['person']): void {
  const [setLanguage] = meApi.useSetLanguageMutation();
  const theirs = person?.language;
  useEffect(() => {
    if (theirs === undefined) return;
    if (theirs === null) void setLanguage({ body: { language: language() } });
    else void speak(theirs);
  }, [theirs, setLanguage]);
}

/** What a form says is read anew where its reader goes over to another language; what they typed stays. */
function useReadAnew(spoken: string): void {
  const dispatch = useDispatch();
  const last = useRef(spoken);
  useEffect(() => {
    if (last.current === spoken) return;
    last.current = spoken;
    dispatch(api.util.invalidateTags(['door', 'mine', 'desk']));
  }, [spoken, dispatch]);
}

/** The desk’s own colour stands in the place of ours. */
function useAccent(accent: AnswerOf<'me'>['desk']['accent'] | undefined): void {
  useEffect(() => {
    if (!accent) return;
    const set = (name: string, part: 'ink' | 'wash' | 'on'): void =>
      document.documentElement.style.setProperty(name, `light-dark(${accent.light[part]}, ${accent.dark[part]})`);
    set('--green', 'ink');
    set('--green-wash', 'wash');
    set('--on-green', 'on');
  }, [accent]);
}

/** Ctrl+K opens find, from anywhere. */
function useFindKey(works: boolean, open: (isOpen: boolean) => void): void {
  useEffect(() => {
    if (!works) return;
    const onKey = (event: KeyboardEvent): void => {
      if ((event.ctrlKey || event.metaKey) && event.key.toLowerCase() === 'k') {
        event.preventDefault();
        open(true);
      }
    };
    addEventListener('keydown', onKey);
    return () => removeEventListener('keydown', onKey);
  }, [works, open]);
}
