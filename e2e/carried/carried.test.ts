import { mkdtempSync, rmSync, statSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import Sqlite from 'better-sqlite3';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { keptReading, layOut, RELEASES } from './archive.ts';
import { asThen, FEWER_LETTERS, isSameLength, MENDED, MORE_LETTERS, momentsIn } from './mended.ts';
import { type Call, NOT_READ, type Reading, readFolder, readingRoutes } from './read.ts';
import { Same } from './same.ts';
import { isSameLetter } from './wording.ts';

/** Stages that only things have, and what they have of requests no more: no dummies are kept for them. */
const THING_STAGES = ['in_use', 'resting', 'gone'];
const EMPTY_OF_THINGS = ['team', 'due'];
// biome-ignore lint/suspicious/noExplicitAny: as answers of that release and of this one are read here.
type Body = any;

/** Routes that came later. */
const SINCE_THEN = [
  ...[
    'smallFile',
    'register',
    'doubles',
    'calendar',
    'calendars',
    'countries',
    'holidays',
    'doorDesign',
    'job',
    'sentState',
  ],
  ...[
    'firstStart',
    'invitation',
    'groundwork',
    'skills',
    'sentEmails',
    'deskSettings',
    'testEmail',
    'people',
    'person',
    'groups',
    'group',
  ],
  ...[
    'rights',
    'rightHolders',
    'registerRights',
    'registerRightsPlan',
    'shareTargets',
    'deciderTargets',
    'decisionsAlike',
    'views',
    'view',
    'nameable',
    'reports',
    'report',
    'reportCopy',
    'sharedResults',
    'sharable',
    'sharedResult',
    'sharedByLink',
    'sharedFile',
    'sharedFileByLink',
    'requestMergePlan',
    'serviceTimes',
    'servedRows',
    'deletionPlan',
    'deletedIn',
    'groundDeletion',
    'account',
    'handOverPlan',
    'profile',
    'colleagues',
    'peopleImports',
    'peopleSheet',
    'mergePlan',
    'rightsOnDay',
    'stepBackPlan',
    'directory',
    'portrait',
    'deskLogo',
    'signInWays',
    'signInSettings',
    'accessPlan',
    'accessPlanEffect',
    'accessPlanGrid',
    'fieldReach',
    'editionsGiven',
    'proofSeat',
    'proofTheirs',
    'changedBy',
    'proposalLink',
    'work',
    'doorRemoval',
    'mailings',
    'findPeople',
    'owedForms',
    'unjoined',
    'fieldReaders',
    'personReads',
    'cardPicture',
    'draftPicture',
    'replanning',
    'ownEmails',
    'requestEmails',
    'requestCourse',
    'incomingEmails',
    'incomingEmail',
    'incomingFile',
    'duty',
    'programs',
    'program',
    'programSecret',
    'toldPrograms',
    'texts',
    'bell',
    'rosters',
    'roster',
    'forecast',
    'forecastHelps',
    'forecastScore',
    'forecastTried',
    'requestForecast',
    'given',
  ],
];

/**
 * The data of each release, opened by the code of today: everybody reads what they read then, by
 * every route, behind every link; and life goes on in it as it would have.
 */
describe.each(RELEASES)('the data of release %s', (release) => {
  let was: Reading;
  let is: Reading;
  const same = new Same();
  const folder = mkdtempSync(join(tmpdir(), 'tolvek-carried-'));

  beforeAll(async () => {
    layOut(release, folder);
    was = keptReading(release);
    const { reads, goesOn, ...others } = await readFolder(folder, was);
    is = { ...others, reads: reads.map(asThen), goesOn: goesOn.map(asThen) };
  }, 240_000);
  afterAll(() => rmSync(folder, { recursive: true, force: true }));

  /** Where calls answer otherwise than they did, but for what was mended. */
  const apart = (calls: readonly Call[], now: readonly Call[]): readonly string[] =>
    calls.flatMap((call, index) => {
      const answered = now[index];
      if (!answered) return [`${call.route} was not called`];
      const { status, body } = call;
      return same
        .differences({ status, body }, { status: answered.status, body: answered.body })
        .filter(
          (path) =>
            !isSameLength(path) &&
            !MENDED.some((mended) => (mended.route ?? call.route) === call.route && mended.where.test(path)),
        )
        .map((path) => `${call.who} ${call.route} ${JSON.stringify(call.input)}${path}`);
    });

  it('holds the same, whoever may read it', () => {
    const differences = same.differences(was.facts, is.facts).filter((path) => {
      const [, index, setting] = /^\.requests\[(\d+)\]\.(\w+): .* → null$/.exec(path) ?? [];
      const stage = was.facts.requests[Number(index)]?.stage ?? '';
      return !(THING_STAGES.includes(stage) && EMPTY_OF_THINGS.includes(setting ?? ''));
    });
    expect(differences.filter((path) => !isSameLength(path)).slice(0, 12)).toEqual([]);
    expect(differences.filter(isSameLength).length).toBeGreaterThan(5);
  });

  it('is read the same by everybody', () => {
    expect(apart(was.reads, is.reads).slice(0, 12)).toEqual([]);
  });

  it('has the one step of each approval as the first of its steps', () => {
    const forms = was.reads.flatMap((call, index) =>
      call.route === 'form' && call.status === 200 ? [[call.body, is.reads[index]?.body] as const] : [],
    ) as [Body, Body][];
    expect(forms.length).toBeGreaterThan(20);
    for (const [before, now] of forms) {
      const { group, ...step } = before.draft.approval.step;
      const steps = [{ ...step, seats: [{ group }], needed: 1 }];
      expect(now.draft.approval).toEqual({ paths: [{ id: 'path', label: '', steps }] });
      const chosen = ({ routing: { rows, otherwise } }: Body['draft']): readonly unknown[] =>
        [...rows, { outcome: otherwise }].map(({ outcome }) => outcome.needsApproval ?? outcome.path);
      expect(chosen(now.draft)).toEqual(chosen(before.draft).map((needs) => (needs ? 'path' : null)));
    }
  });

  it('goes on as it would have', () => {
    expect(apart(was.goesOn, is.goesOn).slice(0, 12)).toEqual([]);
  });

  it('tells of the same moments, as moments', () => {
    const now = [...is.reads, ...is.goesOn];
    const told = [...was.reads, ...was.goesOn].flatMap((call, index) => momentsIn(call.body, now[index]?.body));
    expect(told.length).toBeGreaterThan(300);
    expect(told.filter(([then, now]) => then !== now).slice(0, 12)).toEqual([]);
  });

  it('sends the same letters under the same ids', () => {
    // Each that went then goes now; what goes besides is mended, and said.
    const left = [...is.posted];
    const missing = was.posted.filter((letter) => {
      const at = left.findIndex(
        (each) =>
          (each.to === letter.to && each.subject === letter.subject && same.are(letter, each)) ||
          isSameLetter(letter, each),
      );
      if (at >= 0) left.splice(at, 1);
      return at < 0;
    });
    const unsaid = (letters: Reading['posted'], said: typeof MORE_LETTERS) =>
      letters.filter(({ subject }) => !said.some((each) => each.subject.test(subject ?? '')));
    expect(
      [unsaid(missing, FEWER_LETTERS), unsaid(left, MORE_LETTERS)].map((list) =>
        list.map(({ to, subject }) => `${to} ${subject}`),
      ),
    ).toEqual([[], []]);
  });

  it('was read by every route, each with something to read', () => {
    const told = new Set(was.reads.filter((call) => call.status === 200).map((call) => call.route));
    const bytes = ['file', 'followFile', 'takeOut'];
    const unread = readingRoutes.filter(
      (route) => !told.has(route) && !bytes.includes(route) && !SINCE_THEN.includes(route),
    );
    const counts = [...told].map(
      (route) => `${route} ${was.reads.filter((call) => call.route === route && call.status === 200).length}`,
    );
    console.log(
      `${release}: ${was.reads.length} reads (${counts.join(', ')}), ${was.goesOn.length} calls after, ${was.posted.length} letters`,
    );
    expect([unread, Object.keys(NOT_READ)]).toEqual([[], ['live', 'openapi']]);
    expect(was.reads.filter((call) => call.route === 'bytes' && call.status === 200).length).toBeGreaterThan(50);
  });

  it('finds everybody by their name and each address, and counts who is in which group', () => {
    const db = new Sqlite(join(folder, 'tolvek.sqlite'), { readonly: true });
    const lost = db
      .prepare(
        'select count(*) as n, sum(instr(sought, lower(name)) = 0) as names, (select count(*) from addresses a join people p on p.id = a.person_id where instr(p.sought, a.address) = 0) as addresses from people',
      )
      .get() as { n: number; names: number; addresses: number };
    const miscounted = db
      .prepare(
        'select g.key from groups g left join memberships m on m.group_key = g.key group by g.key having count(m.person_id) <> g.members',
      )
      .all();
    const inGroups = db.prepare('select sum(members) as n from groups').get() as { n: number };
    db.close();
    expect([lost.names, lost.addresses, miscounted]).toEqual([0, 0, []]);
    expect(Math.min(lost.n, inGroups.n)).toBeGreaterThan(10);
  });

  it('is small', () => {
    expect(statSync(join(import.meta.dirname, release, 'folder.gz')).size).toBeLessThan(2_000_000);
  });
});
