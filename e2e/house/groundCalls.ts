import { createServer } from 'node:http';
import type { AddressInfo } from 'node:net';
import type { RouteName } from '@tolvek/contract';
import { notices, passkey, requests, signInProviders, twoFactor, user } from '@tolvek/server/schema';
import { desc, eq } from 'drizzle-orm';
import type { Caller, Desk } from './desk.ts';
import { STORM } from './desk.ts';
import { incomingCalls } from './incoming.ts';
import { viewCalls } from './viewCalls.ts';

type Input = NonNullable<Parameters<Caller['call']>[1]>;

/**
 * What is answered before a desk is laid, and never again; and what makes somebody else of whoever calls it: their own
 * tests call them.
 */
export const ONLY_BEFORE: readonly RouteName[] = ['firstStart', 'layGround', 'signInByCode', 'signInByLink'];

/** A picture of one point. */
export const DOT = 'iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg==';

/** Whoever goes out on boats. */
const AFLOAT = { in: { anyOf: ['boats', '~contact'] }, outOf: ['@nobody'] } as const;

const key = (name: string) => ({ 'Idempotency-Key': `ground-${name}` });
const onVersion = (version: number) => ({ 'If-Match': `"${version}"` });

async function well(calling: ReturnType<Caller['call']>) {
  const answer = await calling;
  if (answer.status !== 200) throw new Error(`${answer.route}: ${answer.status} ${answer.text}`);
  return answer.body;
}

/** The newest requests of each register, through the eyes of who reads most, of an invented one, and of nobody. */
function seenAs(desk: Desk): readonly Input[] {
  const { db } = desk.running.house;
  const newest = db.select().from(requests).orderBy(desc(requests.createdAt)).all();
  const some = [...new Set(newest.map(({ registerId }) => registerId))].flatMap((register) =>
    newest.filter(({ registerId }) => registerId === register).slice(0, 2),
  );
  const eyes = [{ person: desk.idOf('Oskar Veldhuis') }, { groups: ['site-safety'] }, null];
  return some.flatMap(({ number, requesterId }) =>
    [...eyes, ...(requesterId === null ? [] : [{ person: requesterId }])].map((as) => ({
      params: { number },
      body: { as, plan: 'draft', stage: null },
    })),
  );
}

/**
 * A call of each route that lays the ground, with which it does something: on people and groups made
 * for it. `tick`: what happens between two calls.
 */
/** Everything that who reads most can share of some registers, for all staff and by a link; and what is done with it. */
async function sharedCalls(
  desk: Desk,
  registers: readonly string[],
): Promise<Partial<Record<RouteName, readonly Input[]>>> {
  const ada = await desk.as('Ada Quillfeather');
  const rights = { give: ['read:all', 'share:all', 'export:all'], take: [] };
  await well(ada.call('changeRights', { params: { subject: `@${desk.idOf('Oskar Veldhuis')}` }, body: rights }));
  const oskar = await desk.as('Oskar Veldhuis');
  const all = { in: { everyone: true as const }, outOf: [] };
  const bodies: { readonly register: string }[] = [];
  const ids: string[] = [];
  for (const register of registers) {
    const { shares } = await well(oskar.call('sharable', { params: { key: register } }));
    for (const audience of [all, null]) {
      const what = { facts: ['number', 'stage', 'arrived', 'finished'], fields: shares, when: '', takesOut: true };
      const body = { register, name: 'All there is', ...what, audience, until: '2027-11-30' };
      bodies.push(body);
      const input = { headers: key(`share-${register}-${audience === null}`), body };
      ids.push((await well(oskar.call('shareResult', input))).id);
    }
  }
  const { mine } = await well(oskar.call('sharedResults'));
  const tokens = (mine as { path: string }[]).flatMap(({ path }) => path.split('/shared/link/')[1] ?? []);
  // What is changed, and ended, is somebody else’s.
  const maren = await desk.as('Maren Okafor');
  const few = {
    ...{ name: 'A few', facts: ['number' as const], fields: [], when: '', audience: all, until: '2027-11-30' },
    takesOut: false,
  };
  const theirs: string[] = [];
  for (const name of ['changed', 'ended'])
    theirs.push(
      (
        await well(
          maren.call('shareResult', { headers: key(`share-${name}`), body: { register: registers[0] ?? '', ...few } }),
        )
      ).id,
    );
  const [changed = '', ended = ''] = theirs;
  return {
    sharable: registers.map((register) => ({ params: { key: register }, query: { find: 'bo' } })),
    lookAtShared: bodies.map((body) => ({ body })),
    shareResult: bodies.map((body, place) => ({ headers: key(`share-again-${place}`), body })),
    sharedResult: ids.map((id) => ({ params: { id } })),
    sharedByLink: tokens.map((token) => ({ params: { token } })),
    changeShared: [{ params: { id: changed }, body: { ...few, name: 'Changed' } }],
    endShared: [{ params: { id: ended } }],
  };
}

export async function groundCalls(
  desk: Desk,
  tick: () => void = () => undefined,
): Promise<Partial<Record<RouteName, readonly Input[]>>> {
  const ada = await desk.as('Ada Quillfeather');
  const made = async (name: RouteName, input: Input) => {
    const body = await well(ada.call(name, input));
    await desk.running.lettersSent();
    tick();
    return body;
  };
  const read = ['site-access', 'tell-tale', 'pointing'].filter((register) => desk.hasRegister(register));
  const shared = await sharedCalls(desk, read);
  const views = await viewCalls(desk, read);
  const hand = { kind: 'staff', name: 'Nell Hartwick', email: 'nell.hartwick@skerrow.example' } as const;
  const { id } = await made('addPerson', { headers: key('hand-made'), body: hand });
  const { key: divers } = await made('addGroup', { headers: key('divers'), body: { name: 'Divers', isTeam: false } });
  const enter = { params: { key: divers }, body: { group: 'boats', from: null, until: null } };
  const { key: unused } = await made('addGroup', {
    ...{ headers: key('unused'), body: { name: 'Nobody needs it', isTeam: false } },
  });
  const { id: entry } = await made('enterGroup', { ...enter, headers: key('entry') });
  await made('setPortrait', { params: { id }, body: { picture: DOT } });
  await made('setLogo', { body: { picture: DOT } });
  await made('invite', { body: { people: [id] } });
  const gone = { ...hand, name: 'Una Gray', email: 'una.gray@skerrow.example' };
  const { id: leaver } = await made('addPerson', { headers: key('leaver'), body: gone });
  const { id: test } = await made('sendTestEmail', {});
  const token = await desk.tokenFor(hand.email, 'welcome');
  await desk.askedForCode('idris.coombe@tarnbay.example');
  tick();
  await desk.anew('Ada Quillfeather');
  const spare = (await made('account', {})).sessions.find(({ here }: { here: boolean }) => !here).id as string;
  await desk.anew('Yusuf Marchetti');
  const yusuf = await desk.idOf('Yusuf Marchetti');
  const [theirs] = (await made('person', { params: { id: yusuf } })).sessions;
  const { version, desk: settings } = await made('deskSettings', {});
  const rows = [{ name: 'Otto Vale', email: 'otto.vale@many.example' }];
  const file = { kind: 'contact', rows, decided: {} };
  const looked = await made('lookAtPeople', { body: file });
  const take = { ...file, file: 'contacts.csv', gone: false };
  const taken = await made('importPeople', { headers: key('import'), body: { ...take, seen: looked.seen } });
  const another = { ...file, rows: [{ name: 'Ula Brink', email: 'ula.brink@many.example' }] };
  const { seen } = await made('lookAtPeople', { body: another });
  const { version: known, fields } = await made('profile', {});
  const more = { key: 'keys', label: 'Keys', type: { kind: 'number', places: 0 }, of: 'staff' };
  const reads = { params: { id: leaver }, headers: onVersion(1), body: { language: 'de' } };
  await made('changePerson', reads);
  const { history } = await made('person', { params: { id: leaver } });
  const line = history.find(({ undoable }: { undoable: boolean }) => undoable).id as string;
  const twin = { ...gone, name: 'Una Grey', email: 'una.grey@skerrow.example' };
  const { id: twice } = await made('addPerson', { headers: key('twin'), body: twin });
  const always = { days: [1, 2, 3, 4, 5, 6, 7], from: '08:00', to: '08:00', since: '2026-11-02' };
  const round = {
    ...{ name: 'Round the clock', zone: 'Europe/Dublin', calendar: 'desk', needed: 'always', swaps: [] },
    shifts: ['Ada Quillfeather', 'Maren Okafor', 'Bram Solheim', 'Yusuf Marchetti'].map((name, place) => ({
      ...{ ...always, id: `shift-${place}`, name: '', passes: { every: 1, of: 'weeks' }, people: [desk.idOf(name)] },
    })),
  };
  const { key: roster } = await made('createRoster', { headers: key('roster'), body: { roster: round } });
  const plan = {
    ...{ name: 'Elsewhere', note: '', address: 'http://127.0.0.1:9/log', groups: [] },
    may: [{ right: 'read:all', register: null }],
  };
  const { key: program } = await made('createProgram', { headers: key('program'), body: { program: plan } });
  const { id: shut } = await made('addProgramKey', { params: { key: program }, body: { name: 'Ends', days: null } });
  await made('tryProgram', { params: { key: program } });
  await desk.running.lettersSent();
  desk.running.house.db.update(notices).set({ state: 'failed' }).where(eq(notices.program, program)).run();
  const { told } = await made('program', { params: { key: program } });
  const duty = { roster, from: '2026-12-10T08:00:00.000Z', to: '2026-12-10T12:00:00.000Z', person: null, note: '' };
  const bram = await desk.as('Bram Solheim');
  const { id: offer } = await well(bram.call('offerDuty', { headers: key('offered'), body: duty }));
  const days = { from: '2027-01-04', until: '2027-01-08', substitute: null };
  const later = { from: '2027-02-01', until: null, substitute: leaver };
  const away = await made('addAbsence', { params: { id }, headers: key('away'), body: days });
  const ownAway = await made('addOwnAbsence', { headers: key('own-away'), body: days });
  const other = { ...hand, name: 'Ivo Tarn', email: 'ivo.tarn@skerrow.example', groups: ['boats'] };
  const { id: ending } = await made('addDirectoryToken', { body: { name: 'Staff directory', days: null } });
  const { db } = desk.running.house;
  const issuer = await documented();
  const provider = { id: 'other', name: 'Other', issuer: 'http://127.0.0.1:9', clientId: 'tolvek', madeAt: 0 };
  db.insert(signInProviders).values(provider).run();
  db.insert(twoFactor).values({ id: 'code', secret: '', backupCodes: '', userId: yusuf }).run();
  const own = { userId: desk.idOf('Ada Quillfeather'), credentialID: 'key', publicKey: '', counter: 0 };
  db.insert(passkey)
    .values({ ...own, id: 'key', name: 'Laptop', deviceType: 'singleDevice', backedUp: false })
    .run();
  db.update(user).set({ twoFactorEnabled: true }).where(eq(user.id, yusuf)).run();
  return {
    ...(await incomingCalls(desk)),
    ...shared,
    ...views,
    invitation: [{ params: { token } }],
    acceptInvitation: [{ params: { token }, body: { password: 'gulls over grey water' } }],
    forgotPassword: [
      { body: { email: 'nobody@nowhere.example' } },
      { body: { email: 'hanne.istvan@skerrow.example' } },
    ],
    askForCode: [{ body: { email: 'nobody@nowhere.example' } }],
    signInByCode: [],
    signInByLink: [],
    account: [{}],
    changePassword: [{ body: { current: 'tolvek-demo', next: 'a wren in the quince' } }],
    endPasskey: [{ params: { id: 'key' } }],
    endSession: [{ params: { id: spare } }],
    endTheirSession: [{ params: { id: yusuf, session: theirs.id } }],
    signOutPerson: [{ params: { id } }],
    portrait: [],
    setPortrait: [{ params: { id }, body: { picture: DOT } }],
    setOwnPortrait: [{ body: { picture: DOT } }],
    deskLogo: [],
    setLogo: [{ body: { picture: DOT } }],
    signInWays: [{}],
    signInSettings: [{}],
    addProvider: [{ headers: key('provider'), body: { name: 'More', issuer, clientId: 'tolvek', secret: null } }],
    changeProvider: [{ params: { id: 'other' }, headers: onVersion(1), body: { name: 'Another', active: false } }],
    setPasswords: [{ body: { on: true } }],
    endTheirCode: [{ params: { id: yusuf } }],
    groundwork: [{}],
    deskSettings: [{}],
    skills: [{}],
    changeDesk: [
      { headers: onVersion(version), body: { desk: { ...settings, signature: 'Yours, the desk' }, note: 'Warmer' } },
    ],
    sendTestEmail: [{}],
    testEmail: [{ params: { id: test } }],
    addAbsence: [{ params: { id }, headers: key('absence'), body: later }],
    endAbsence: [{ params: { id, absence: away.id } }],
    ownEmails: [{}],
    setOwnEmails: [{ body: { ways: { team: 'digest' }, digest: { at: '08:00', days: [1, 2, 3, 4, 5] }, quiet: null } }],
    addOwnAbsence: [{ headers: key('own-absence'), body: later }],
    endOwnAbsence: [{ params: { absence: ownAway.id } }],
    colleagues: [{ query: { find: 'bram' } }],
    lookAtPeople: [{ body: file }],
    importPeople: [{ headers: key('import-more'), body: { ...take, ...another, seen } }],
    peopleImports: [{}],
    undoImport: [{ params: { id: taken.id } }],
    peopleSheet: [],
    profile: [{}],
    changeProfile: [{ headers: onVersion(known), body: { fields: [...fields, more] } }],
    people: [
      {},
      { query: { find: 'hartwick', kind: 'staff', state: 'active' } },
      { query: { group: 'boats', where: 'site=pier_house', sort: 'site' } },
    ],
    person: [{ params: { id } }],
    addPerson: [{ headers: key('person'), body: other }],
    changePerson: [
      { params: { id }, headers: onVersion(1), body: { language: 'de', profile: { position: 'Skipper' } } },
    ],
    invite: [{ body: { people: [id] } }],
    handOverPlan: [{ params: { id: leaver } }],
    handOver: [{ params: { id: leaver }, body: { to: null } }],
    mergePlan: [{ params: { id }, query: { other: twice } }],
    mergePeople: [{ params: { id }, body: { other: twice } }],
    groups: [{}],
    group: [{ params: { key: divers } }, { params: { key: 'estates' } }],
    addGroup: [{ headers: key('group'), body: { name: 'Night watch', isTeam: true, about: 'Who is awake' } }],
    changeGroup: [{ params: { key: divers }, headers: onVersion(1), body: { about: 'Whoever dives', rule: AFLOAT } }],
    tryRule: [{ params: { key: divers }, body: { rule: AFLOAT } }],
    enterGroup: [
      {
        ...{ params: { key: divers }, headers: key('enter') },
        body: { person: id, from: '2026-11-01', until: '2027-11-01' },
      },
    ],
    leaveGroup: [{ params: { key: divers, entry } }],
    rights: [{}],
    rightsOnDay: [{ params: { day: '2026-11-23' } }],
    stepBackPlan: [{ params: { id: line } }],
    groundDeletion: [{ params: { kind: 'group', key: divers } }, { params: { kind: 'calendar', key: 'desk' } }],
    deleteGround: [{ params: { kind: 'group', key: unused } }],
    sayWhy: [{ params: { id: line }, body: { why: 'She asked for it.' } }],
    stepBack: [{ params: { id: line } }],
    rightHolders: [{ params: { right: 'read:all' } }],
    changeRights: [{ params: { subject: divers }, body: { give: ['export:team'], take: [] } }],
    registerRights: [{ params: { key: 'purchase' } }],
    accessPlan: [{ params: { key: 'purchase' } }, { params: { key: 'site-access' } }],
    seeAs: seenAs(desk),
    proofSeat: [
      { params: { key: 'site-access', person: desk.idOf('Jory Blackadder-Finn') } },
      { params: { key: 'site-access', person: 'nobody' } },
    ],
    proofTheirs: [
      {
        params: { key: 'site-access', person: desk.idOf('Priya Nakamura-Lind') },
        query: { whose: '~requester' },
      },
      { params: { key: 'my-skills', person: desk.idOf('Bram Solheim') }, query: { whose: 'person' } },
      { params: { key: 'my-skills', person: 'nobody' }, query: { whose: 'person' } },
    ],
    editionsGiven: [
      { params: { key: 'site-access' } },
      { params: { key: 'site-access' }, query: { find: 'a', changed: 'true' } },
      { params: { key: 'site-access' }, query: { stage: 'done', as: 'handler requester', edition: '' } },
    ],
    fieldReach: [
      { params: { key: 'site-access' }, query: { field: 'works_on_water' } },
      { params: { key: 'site-access' }, query: { field: 'medical_note', plan: 'draft' } },
    ],
    fieldReaders: [
      { params: { key: 'site-access' }, query: { field: 'medical_note' } },
      { params: { key: 'site-access' }, query: { field: 'escort', plan: 'draft' } },
      { params: { key: 'site-access' }, query: { field: 'escort', day: '2026-11-20' } },
    ],
    personReads: [
      { params: { key: 'site-access' }, query: { person: id } },
      { params: { key: 'site-access' }, query: { person: id, day: '2026-11-20' } },
    ],
    accessPlanGrid: [
      { params: { key: 'site-access' }, query: { stage: 'new', activity: 'taking-out' } },
      { params: { key: 'purchase' } },
    ],
    accessPlanEffect: [{ params: { key: 'purchase' } }, { params: { key: 'site-access' } }],
    keepAccessPlan: [
      {
        params: { key: 'purchase' },
        headers: onVersion(desk.register('purchase').version),
        body: {
          rules: [
            {
              ...{ id: 'heads', name: 'For heads', fields: 'all', level: 'read' },
              audience: { in: { anyOf: ['duty-managers'] }, outOf: ['estates'] },
            },
          ],
          resting: [],
        },
      },
    ],
    putAccessPlan: [
      {
        params: { key: 'purchase' },
        headers: onVersion(desk.register('purchase').version + 1),
        body: { note: 'Money is for heads', closesToMyself: true },
      },
    ],
    registerRightsPlan: [{ params: { key: 'purchase' }, query: { to: 'apart' } }],
    setRegisterRights: [{ params: { key: 'rooms' }, body: { to: 'apart' } }],
    directory: [{}],
    addDirectoryToken: [{ body: { name: 'Another directory', days: 90 } }],
    endDirectoryToken: [{ params: { id: ending } }],
    fillFromDirectory: [{}],
    calendars: [{}],
    createCalendar: [{ headers: key('calendar'), body: { calendar: { ...STORM, name: 'Boats' } } }],
    rosters: [{}],
    createRoster: [{ headers: key('another-roster'), body: { roster: { ...round, name: 'Another' } } }],
    roster: [{ params: { key: roster } }],
    changeRoster: [{ params: { key: roster }, headers: onVersion(1), body: { roster: round, note: 'As it is' } }],
    programs: [{}],
    createProgram: [{ headers: key('another-program'), body: { program: { ...plan, name: 'Other' } } }],
    program: [{ params: { key: program } }],
    changeProgram: [{ params: { key: program }, headers: onVersion(1), body: { program: plan, note: 'As it is' } }],
    addProgramKey: [{ params: { key: program }, body: { name: 'Another', days: 90 } }],
    endProgramKey: [{ params: { key: program, id: shut } }],
    programSecret: [{ params: { key: program } }],
    renewProgramSecret: [{ params: { key: program } }],
    tryProgram: [{ params: { key: program } }],
    tellProgramAgain: [{ params: { key: program, id: told[0]?.id } }],
    toldPrograms: [{}],
    bell: [{}],
    seeBell: [{ body: { until: '2026-11-23T10:00:00.000Z' } }],
    texts: [{}],
    takeText: [
      {
        params: { sender: 'tel:+353000000' },
        body: {
          outboundSMSMessageRequest: {
            ...{ address: ['tel:+353211111111'], senderAddress: 'tel:+353000000', clientCorrelator: 'once' },
            outboundSMSTextMessage: { message: 'A trip' },
          },
        },
      },
    ],
    duty: [{}],
    offerDuty: [{ headers: key('offers'), body: duty }],
    answerOffer: [{ params: { id: offer }, body: { answer: 'take' } }],
    countries: [{}],
    holidays: [{ params: { country: 'IE' }, query: { from: '2026', to: '2027' } }],
  };
}

/** Somebody who has a discovery document as providers of OpenID Connect have it, and nothing else. */
function documented(): Promise<string> {
  return new Promise((done) => {
    const server = createServer((request, response) => {
      const at = `http://${request.headers.host}`;
      const document = { issuer: at, authorization_endpoint: at, token_endpoint: at, jwks_uri: at };
      response.end(JSON.stringify(document));
    });
    server.unref().listen(0, '127.0.0.1', () => done(`http://127.0.0.1:${(server.address() as AddressInfo).port}`));
  });
}
