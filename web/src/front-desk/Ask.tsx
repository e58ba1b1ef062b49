import type { AnswerOf } from '@tolvek/contract';
import { lazy, Suspense, useState } from 'react';
import { Link, Navigate, useLocation, useParams, useSearchParams } from 'react-router';
import { Column } from '../ui/Column.tsx';
import { Trouble } from '../ui/Trouble.tsx';
import { useTitle } from '../ui/useTitle.ts';
import { problemOf } from '../wire/problem.ts';
import { say, told } from '../wire/words.ts';
import { frontDeskApi } from './endpoints.ts';
import { FillIn } from './FillIn.tsx';
import { isKeptHere, keptUnder, movedTo, openedHere, recall } from './keptAnswers.ts';
import { ProveAgain } from './ProveAgain.tsx';

const SentToYou = lazy(() => import('./SentToYou.tsx').then(({ SentToYou: default_ }) => ({ default: default_ })));
const PlaceGiven = lazy(() => import('./HeldPlace.tsx').then(({ PlaceGiven: default_ }) => ({ default: default_ })));
const Line = lazy(() => import('./Line.tsx').then(({ Line: default_ }) => ({ default: default_ })));

/** A door: to whom it admits it shows its form, to others a polite refusal. */
export function Ask() {
  const { slug = '' } = useParams();
  const [search] = useSearchParams();
  const owed = search.get('owed') ?? undefined;
  const place = search.get('place') ?? undefined;
  // Of whom nothing is here yet, by their own word.
  const fresh = search.has('fresh') ? 'true' : undefined;
  return <AskAt key={`${slug} ${owed} ${place} ${fresh}`} {...{ slug, owed, place, fresh }} />;
}

interface AskAtProps {
  readonly slug: string;
  readonly owed: string | undefined;
  readonly place: string | undefined;
  readonly fresh: string | undefined;
}

function AskAt({ slug, owed, place, fresh }: AskAtProps) {
  /** What shows since when its form was filled in on this device: as it was when the page was loaded. */
  const [opened, setOpened] = useState(() => openedHere(slug));
  const [search] = useSearchParams();
  const token = search.get('kept');
  const { data: behind, error: gone } = frontDeskApi.useKeptQuery({ token: token ?? '' }, { skip: !token });
  const {
    data: door,
    error: closed,
    refetch,
  } = frontDeskApi.useDoorQuery(
    { slug, query: { opened: behind?.opened ?? opened, owed, place, ...(fresh ? { fresh } : {}) } },
    { refetchOnMountOrArgChange: true, skip: token !== null && !behind && !gone },
  );
  const again = (): void => {
    const now = openedHere(slug);
    if (now === opened) void refetch();
    else setOpened(now);
  };
  // Behind the link of an email nobody is signed in for whom it could be kept.
  const isTheirs = owed === undefined || door?.sent?.id === owed;
  const error = closed ?? gone;
  const [gavePlace, setGavePlace] = useState(false);
  const { state: handedOn } = useLocation();
  const isByEmail = (handedOn as { readonly byEmail?: unknown } | null)?.byEmail !== undefined;
  useTitle(door?.title ?? '');
  if (gavePlace && door)
    return (
      <Column>
        <h1 className="text-[28px]" lang={door.spoken}>
          {door.title}
        </h1>
        <Suspense>
          <PlaceGiven />
        </Suspense>
      </Column>
    );
  if (error)
    return (
      <Column>
        {problemOf(error).type.endsWith(':prove') ? <ProveAgain /> : <Trouble error={error} again={refetch} />}
      </Column>
    );
  if (!door || (token && !behind))
    return (
      <Column>
        <p className="text-soft">{say('desk:openingForm')}</p>
      </Column>
    );
  // By an address that it had before: what was typed there is gone on with.
  if (door.slug !== slug) {
    movedTo(slug, door.slug, owed);
    return <Navigate to={`../${door.slug}${location.search}`} relative="path" replace />;
  }
  if (door.leadsTo) return <LedElsewhere door={door} leadsTo={door.leadsTo} />;
  return (
    <Column>
      <h1 className="text-[28px]" lang={door.spoken}>
        {door.title}
      </h1>
      {door.sent ? (
        <Suspense>
          <SentToYou sent={door.sent} isOpen={door.form !== null} />
        </Suspense>
      ) : null}
      {door.form && door.kind === 'outside' && !door.asks && !door.unnamed && !token ? (
        <p className="mt-1 text-[14px] text-soft print:hidden">
          {say('desk:askedBefore')} <Link to={`/come-in?back=/ask/${door.slug}`}>{say('desk:signInByEmail')}</Link>
        </p>
      ) : null}
      {door.form ? (
        <FillIn
          key={`${slug} ${door.form.release}`}
          door={{ ...door, form: door.form }}
          reload={again}
          kept={behind ?? door.form.kept}
          owed={owed}
          place={place}
          gavePlace={() => setGavePlace(true)}
          keptAt={
            isByEmail
              ? null
              : token
                ? { as: 'link', token }
                : !door.unnamed && (door.kind === 'staff' || door.asks) && isTheirs
                  ? { as: 'staff', owed }
                  : null
          }
        />
      ) : (
        <Refusal door={door} again={again} />
      )}
    </Column>
  );
}

/** Somebody asks for it somewhere else: by another form, which opens with what was typed here; or at an address elsewhere. */
function LedElsewhere({
  door: { slug, title, spoken, form: _, ...door },
  leadsTo,
}: {
  door: AnswerOf<'door'>;
  leadsTo: NonNullable<AnswerOf<'door'>['leadsTo']>;
}) {
  const { pathname, search } = useLocation();
  const [, place = 'ask'] = pathname.split('/');
  if (leadsTo.to === 'form' && leadsTo.slug !== null) {
    const { answers } = recall(keptUnder(slug, door.sent?.id), null);
    const values = Object.entries(answers).map(([key, value]) => ({ key, value }));
    return <Navigate to={`/${place}/${leadsTo.slug}${search}`} state={{ from: { title, values } }} replace />;
  }
  return (
    <Column>
      <h1 className="text-[28px]" lang={spoken}>
        {title}
      </h1>
      {leadsTo.to === 'form' ? (
        <>
          <p className="mt-4">{say('desk:askedByForm', { title: leadsTo.title })}</p>
          <p className="mt-5">
            <Link to="/">{say('desk:seeOtherForms')}</Link>
          </p>
        </>
      ) : (
        <>
          <p className="mt-4">{say('desk:askedAtAddress', { host: leadsTo.host })}</p>
          {isKeptHere(slug) ? <p className="mt-2 text-soft">{say('desk:keptForReturn')}</p> : null}
          <p className="mt-5">
            <a
              className="inline-flex min-h-[46px] items-center rounded-md bg-green px-5 font-semibold text-on-green no-underline"
              href={leadsTo.address}
              rel="noreferrer"
            >
              {say('desk:goThere', { host: leadsTo.host })}
            </a>
          </p>
        </>
      )}
    </Column>
  );
}

function Refusal({ door, again }: { door: AnswerOf<'door'>; again: () => void }) {
  const mustSignIn = door.why === 'sign-in';
  return (
    <>
      <p className="mt-4 whitespace-pre-line">{door.refusal === null ? null : told(door.refusal)}</p>
      {door.earlier ? (
        <p className="mt-5 border-l-2 border-green pl-3.5">
          <span className="text-soft">{say('desk:yourEarlier')}</span>{' '}
          <Link to={`/my/${door.earlier.number}`}>{told(door.earlier.subject)}</Link>
          <span className="block text-soft">
            <span className="font-mono text-[14px]">{door.earlier.number}</span> · {door.earlier.stage}
          </span>
        </p>
      ) : null}
      {door.line ? (
        <Suspense>
          <Line door={door} line={door.line} again={again} />
        </Suspense>
      ) : null}
      {door.instead ? (
        <p className="mt-5 border-l-2 border-green pl-3.5">
          {say('desk:insteadUse')} <Link to={`/ask/${door.instead.slug}`}>{door.instead.title}</Link>
        </p>
      ) : null}
      {isKeptHere(door.slug) ? <p className="mt-5 text-soft">{say('desk:keptThough')}</p> : null}
      <p className="mt-5">
        {mustSignIn ? (
          <Link to={`/${door.kind === 'outside' ? 'come-in' : 'sign-in'}?back=/ask/${door.slug}`}>
            {say('common:signIn')}
          </Link>
        ) : (
          <Link to="/">{say('desk:seeOtherForms')}</Link>
        )}
      </p>
      {door.addsInstead ? (
        <p className="mt-5 border-l-2 border-green pl-3.5">
          {say('desk:nothingHereYet')} <Link to={`/ask/${door.slug}?fresh`}>{say('desk:fillInAllTheSame')}</Link>
        </p>
      ) : null}
    </>
  );
}
