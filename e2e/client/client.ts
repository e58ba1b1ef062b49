import createClient from 'openapi-fetch';
import type { paths } from './made/schema.d.ts';

/** What the calls are about: names of what is there, as the caller knows them. */
export interface Known {
  readonly url: string;
  readonly email: string;
  readonly password: string;
  readonly slug: string;
  readonly form: string;
  readonly register: string;
  readonly vocabulary: string;
  readonly number: string;
  readonly card: string;
  readonly own: string;
  readonly file: { readonly number: string; readonly id: string };
  readonly picture: { readonly number: string; readonly id: string };
  readonly letter: string;
  readonly kept: string;
  readonly confirmation: string;
  readonly sent: string;
  readonly follow: string;
  readonly followFile: string;
  readonly decision: string;
  /** Somebody else’s, which waits for a decision. */
  readonly waiting: string;
  readonly accepting: string;
  readonly job: string;
  readonly invitation: string;
  readonly person: string;
  readonly twin: string;
  readonly line: string;
  readonly test: string;
  readonly shared: string;
  readonly sharedLink: string;
  readonly mailing: string;
  readonly roster: string;
  readonly view: string;
  readonly report: string;
  readonly copy: string;
  readonly program: string;
  /** A team of which something is open, and a day on which it works. */
  readonly tried: { readonly team: string; readonly day: string };
  readonly incoming: { readonly id: string; readonly file: string };
  /** Somebody from outside who handles a request, signed in. */
  readonly outsider: { readonly number: string; readonly cookie: string };
}

/** Signs in and calls each route that reads, as somebody would who has the OpenAPI document and nothing else. */
export async function callAll(known: Known): Promise<Readonly<Record<string, number>>> {
  const stranger = createClient<paths>({ baseUrl: known.url });
  const { email, password } = known;
  const signedIn = await stranger.POST('/api/auth/sign-in/email', {
    body: { email, password },
    headers: { origin: known.url },
  });
  const cookie = signedIn.response.headers
    .getSetCookie()
    .map((each) => each.split(';')[0])
    .join('; ');
  const staff = createClient<paths>({ baseUrl: known.url, headers: { cookie } });
  const statuses: Record<string, number> = {};
  const note = (name: string, { response, error }: { response: Response; error?: unknown }): void => {
    statuses[name] = response.status;
    if (error) console.error(name, JSON.stringify(error));
  };
  const path = <T extends object>(of: T) => ({ params: { path: of } });

  const sheet = await staff.GET('/api/requests/{number}', path({ number: known.number }));
  note('sheet', sheet);
  // What is answered is known to the compiler: reasons hold reasons.
  const reasons: readonly unknown[] =
    sheet.data?.routing?.rows.flatMap((row) => row.cells.flatMap((cell) => cell.parts.map((part) => part.words))) ?? [];
  const fields: readonly string[] = sheet.data?.values.fields.map((field) => field.label) ?? [];
  if (fields.length + reasons.length === 0) throw new Error('The sheet tells nothing.');

  note('health', await stranger.GET('/api/health'));
  note('openapi', await stranger.GET('/api/openapi.json'));
  note('me', await staff.GET('/api/me'));
  note('ownEmails', await staff.GET('/api/me/emails'));
  note('requestCourse', await staff.GET('/api/requests/{number}/course', path({ number: known.number })));
  note('requestEmails', await staff.GET('/api/requests/{number}/emails', path({ number: known.number })));
  note('duty', await staff.GET('/api/duty'));
  note('rosters', await staff.GET('/api/rosters'));
  note('views', await staff.GET('/api/views'));
  note('view', await staff.GET('/api/views/{id}', path({ id: known.view })));
  note('nameable', await staff.GET('/api/views/nameable', { params: { query: { of: known.register } } }));
  note('reports', await staff.GET('/api/reports'));
  note('report', await staff.GET('/api/reports/{id}', path({ id: known.report })));
  note('reportCopy', await staff.GET('/api/reports/{id}/copies/{copy}', path({ id: known.report, copy: known.copy })));
  note('programs', await staff.GET('/api/programs'));
  note('program', await staff.GET('/api/programs/{key}', path({ key: known.program })));
  note('programSecret', await staff.GET('/api/programs/{key}/secret', path({ key: known.program })));
  note('texts', await staff.GET('/api/stand-in/texts'));
  note('bell', await staff.GET('/api/bell'));
  note('toldPrograms', await staff.GET('/api/stand-in/programs'));
  note('roster', await staff.GET('/api/rosters/{key}', path({ key: known.roster })));
  const served = { from: '2026-10-01', to: '2026-11-30' };
  note('serviceTimes', await staff.GET('/api/service', { params: { query: served } }));
  note('servedRows', await staff.GET('/api/service/rows', { params: { query: { ...served, figure: 'went' } } }));
  note('requestMergePlan', await staff.GET('/api/requests/{number}/merging', path({ number: known.number })));
  note('forecast', await staff.GET('/api/forecast'));
  note('forecastHelps', await staff.GET('/api/forecast/helps'));
  note('forecastScore', await staff.GET('/api/forecast/score'));
  note('forecastTried', await staff.GET('/api/forecast/tried', { params: { query: { ...known.tried, hours: 2 } } }));
  note('requestForecast', await staff.GET('/api/requests/{number}/forecast', path({ number: known.number })));
  note('frontDesk', await staff.GET('/api/desk'));
  note('door', await staff.GET('/api/doors/{slug}', path({ slug: known.slug })));
  note('kept', await stranger.GET('/api/kept/{token}', path({ token: known.kept })));
  note('confirmation', await stranger.GET('/api/confirmations/{token}', path({ token: known.confirmation })));
  note('sentState', await stranger.GET('/api/sent/{token}', path({ token: known.sent })));
  note('follow', await stranger.GET('/api/follow/{token}', path({ token: known.follow })));
  const own = { ...path({ token: known.follow, id: known.followFile }), parseAs: 'arrayBuffer' } as const;
  note('followFile', await stranger.GET('/api/follow/{token}/files/{id}', own));
  const outsider = createClient<paths>({ baseUrl: known.url, headers: { cookie: known.outsider.cookie } });
  note('given', await outsider.GET('/api/given/{number}', path({ number: known.outsider.number })));
  note('myRequest', await staff.GET('/api/my/requests/{number}', path({ number: known.own })));
  note('trays', await staff.GET('/api/trays'));
  note('ledger', await staff.GET('/api/requests', { params: { query: { tray: 'all' } } }));
  const file = { ...path(known.file), parseAs: 'arrayBuffer' } as const;
  note('file', await staff.GET('/api/requests/{number}/files/{id}', file));
  const small = { ...path(known.picture), parseAs: 'arrayBuffer' } as const;
  note('smallFile', await staff.GET('/api/requests/{number}/files/{id}/small', small));
  note('proposalLink', await stranger.GET('/api/proposals/{token}', path({ token: known.accepting })));
  note('changedBy', await staff.GET('/api/requests/{number}/changing', path({ number: known.number })));
  note('decisionLink', await stranger.GET('/api/decisions/{token}', path({ token: known.decision })));
  note('decisionsAlike', await staff.GET('/api/requests/{number}/decision/alike', path({ number: known.waiting })));
  note('deciderTargets', await staff.GET('/api/requests/{number}/decider-targets', path({ number: known.waiting })));
  const live = await staff.GET('/api/live', { parseAs: 'stream' });
  note('live', live);
  await live.data?.cancel();
  note('incomingEmails', await staff.GET('/api/emails'));
  note('incomingEmail', await staff.GET('/api/emails/{id}', path({ id: known.incoming.id })));
  const brought = { ...path(known.incoming), parseAs: 'arrayBuffer' } as const;
  note('incomingFile', await staff.GET('/api/emails/{id}/files/{file}', brought));
  note('mailroom', await staff.GET('/api/mailroom'));
  note('letter', await staff.GET('/api/mailroom/{id}', path({ id: known.letter })));
  note('register', await staff.GET('/api/registers/{key}', path({ key: known.register })));
  note('doorDesign', await staff.GET('/api/doors/{slug}/settings', path({ slug: known.slug })));
  note('doorRemoval', await staff.GET('/api/doors/{slug}/removal', path({ slug: known.slug })));
  note('mailings', await staff.GET('/api/forms/{key}/mailings', path({ key: known.form })));
  note('owedForms', await staff.GET('/api/mailings/{id}/forms', path({ id: known.mailing })));
  note('unjoined', await staff.GET('/api/mailings/{id}/unjoined', path({ id: known.mailing })));
  note('work', await stranger.GET('/api/doors/{slug}/work', path({ slug: known.slug })));
  note('calendar', await staff.GET('/api/calendars/{key}', path({ key: 'desk' })));
  note('calendars', await staff.GET('/api/calendars'));
  note('countries', await staff.GET('/api/holidays'));
  const years = { params: { path: { country: 'IE' }, query: { from: 2026, to: 2027 } } };
  note('holidays', await staff.GET('/api/holidays/{country}', years));
  note('invitation', await stranger.GET('/api/invitations/{token}', path({ token: known.invitation })));
  note('account', await staff.GET('/api/me/account'));
  note('groundwork', await staff.GET('/api/groundwork'));
  note('deskSettings', await staff.GET('/api/groundwork/desk'));
  note('skills', await staff.GET('/api/groundwork/skills'));
  note('sentEmails', await staff.GET('/api/sent-emails', { params: { query: { state: 'all', find: '' } } }));
  note('testEmail', await staff.GET('/api/groundwork/test-emails/{id}', path({ id: known.test })));
  note('colleagues', await staff.GET('/api/me/colleagues'));
  note('peopleImports', await staff.GET('/api/people-imports'));
  note('signInWays', await staff.GET('/api/sign-in-ways'));
  note('signInSettings', await staff.GET('/api/groundwork/sign-in'));
  note('directory', await staff.GET('/api/groundwork/directory'));
  note('profile', await staff.GET('/api/groundwork/profile'));
  note('people', await staff.GET('/api/people'));
  note('person', await staff.GET('/api/people/{id}', path({ id: known.person })));
  const portrait = { ...path({ id: known.person }), parseAs: 'arrayBuffer' } as const;
  note('portrait', await staff.GET('/api/people/{id}/portrait', portrait));
  const card = { form: 'vessel-time', field: 'vessel', file: known.card };
  const onDoor = { ...path({ ...card, slug: card.form }), parseAs: 'arrayBuffer' } as const;
  note('cardPicture', await staff.GET('/api/doors/{slug}/cards/{field}/{file}', onDoor));
  const onDraft = { ...path({ ...card, key: card.form }), parseAs: 'arrayBuffer' } as const;
  note('draftPicture', await staff.GET('/api/forms/{key}/cards/{field}/{file}', onDraft));
  note('deskLogo', await stranger.GET('/api/desk/logo', { parseAs: 'arrayBuffer' }));
  note('rights', await staff.GET('/api/rights'));
  note('rightHolders', await staff.GET('/api/rights/{right}/people', path({ right: 'read:all' })));
  const desk = path({ kind: 'calendar', key: 'desk' } as const);
  note('groundDeletion', await staff.GET('/api/groundwork/deletion/{kind}/{key}', desk));
  note('registerRights', await staff.GET('/api/registers/{key}/rights', path({ key: known.register })));
  const apart = { params: { path: { key: known.register }, query: { to: 'apart' } } } as const;
  note('registerRightsPlan', await staff.GET('/api/registers/{key}/rights/plan', apart));
  note('accessPlan', await staff.GET('/api/registers/{key}/access', path({ key: known.register })));
  note(
    'proofSeat',
    await staff.GET('/api/forms/{key}/seats/{person}', path({ key: known.form, person: known.person })),
  );
  note(
    'proofTheirs',
    await staff.GET('/api/forms/{key}/seats/{person}/theirs', {
      params: { path: { key: known.form, person: known.person }, query: { whose: '~requester' } },
    }),
  );
  note('editionsGiven', await staff.GET('/api/forms/{key}/editions', path({ key: known.form })));
  note(
    'fieldReach',
    await staff.GET('/api/registers/{key}/access/reach', {
      params: { path: { key: known.register }, query: { field: 'visitor' } },
    }),
  );
  note(
    'fieldReaders',
    await staff.GET('/api/registers/{key}/access/readers', {
      params: { path: { key: known.register }, query: { field: 'visitor' } },
    }),
  );
  note(
    'personReads',
    await staff.GET('/api/registers/{key}/access/person', {
      params: { path: { key: known.register }, query: { person: known.person } },
    }),
  );
  note('accessPlanGrid', await staff.GET('/api/registers/{key}/access/grid', path({ key: known.register })));
  note('accessPlanEffect', await staff.GET('/api/registers/{key}/access/effect', path({ key: known.register })));
  note('deletedIn', await staff.GET('/api/registers/{key}/deleted', path({ key: known.register })));
  note('deletionPlan', await staff.GET('/api/requests/{number}/deletion', path({ number: known.number })));
  note('shareTargets', await staff.GET('/api/requests/{number}/share-targets', path({ number: known.number })));
  note('sharedResults', await staff.GET('/api/shared-results'));
  note('sharable', await staff.GET('/api/registers/{key}/sharable', path({ key: known.register })));
  note('sharedResult', await staff.GET('/api/shared-results/{id}', path({ id: known.shared })));
  note('sharedByLink', await stranger.GET('/api/shared/{token}', path({ token: known.sharedLink })));
  const asText = { parseAs: 'text' as const };
  note(
    'sharedFile',
    await staff.GET('/api/shared-results/{id}/rows.csv', { ...path({ id: known.shared }), ...asText }),
  );
  note(
    'sharedFileByLink',
    await stranger.GET('/api/shared/{token}/rows.csv', { ...path({ token: known.sharedLink }), ...asText }),
  );
  note('handOverPlan', await staff.GET('/api/people/{id}/hand-over', path({ id: known.person })));
  note('rightsOnDay', await staff.GET('/api/rights-on/{day}', path({ day: '2026-11-23' })));
  note('stepBackPlan', await staff.GET('/api/ground-history/{id}/back', path({ id: known.line })));
  const twin = { params: { path: { id: known.person }, query: { other: known.twin } } } as const;
  note('mergePlan', await staff.GET('/api/people/{id}/merge', twin));
  note('groups', await staff.GET('/api/groups'));
  note('group', await staff.GET('/api/groups/{key}', path({ key: 'boats' })));
  note('doubles', await staff.GET('/api/registers/{key}/doubles', path({ key: known.register })));
  note('forms', await staff.GET('/api/forms'));
  note('ground', await staff.GET('/api/ground'));
  note('findPeople', await staff.GET('/api/ground/people'));
  note('form', await staff.GET('/api/forms/{key}', path({ key: known.form })));
  note('draftHistory', await staff.GET('/api/forms/{key}/draft/history', path({ key: known.form })));
  note('compareRelease', await staff.GET('/api/forms/{key}/releases/{number}', path({ key: known.form, number: 1 })));
  const sheetOfRows = { params: { path: { key: known.form }, query: { among: 'all' } }, parseAs: 'text' } as const;
  note('takeOut', await staff.GET('/api/forms/{key}/requests.csv', sheetOfRows));
  const sheetOfPeople = { params: { query: { kind: 'staff' } }, parseAs: 'text' } as const;
  note('peopleSheet', await staff.GET('/api/people.csv', sheetOfPeople));
  note('job', await staff.GET('/api/jobs/{id}', path({ id: known.job })));
  note('vocabularies', await staff.GET('/api/vocabularies'));
  note('vocabulary', await staff.GET('/api/vocabularies/{key}', path({ key: known.vocabulary })));
  return statuses;
}

console.log(JSON.stringify(await callAll(JSON.parse(process.argv[2] ?? '{}') as Known)));
