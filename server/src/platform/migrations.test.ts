import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { formDesign } from '@tolvek/contract';
import Sqlite from 'better-sqlite3';
import { afterAll, describe, expect, it } from 'vitest';
import { withPaths } from './upgrade/steps/paths.ts';
import { renewed } from './upgrade/steps/rounds.ts';
import { withDeadlines } from './upgrade/steps/severalDeadlines.ts';

const folder = mkdtempSync(join(tmpdir(), 'tolvek-migrations-'));
afterAll(() => rmSync(folder, { recursive: true, force: true }));

const statements = (name: string): readonly string[] =>
  readFileSync(new URL(`../../migrations/${name}.sql`, import.meta.url), 'utf8')
    .split('--> statement-breakpoint')
    .map((text) => text.trim())
    .filter(Boolean);

/** A form as the first installations stored it. */
const OLD = {
  title: 'Come on site',
  intro: '',
  subject: '{visitor}',
  fields: [
    { key: 'visitor', label: 'Visitor', type: { kind: 'text' }, source: 'asked' },
    { key: 'boat', label: 'Boat', type: { kind: 'yes-no' }, source: 'asked' },
  ],
  questions: [
    { field: 'visitor', asks: 'Who?', help: '', required: true },
    { field: 'boat', asks: '', help: '', required: false },
  ],
  rules: [{ id: 'r1', name: 'Boat', when: 'visitor = "x"', show: ['boat'], on: false }],
  routing: {
    columns: [],
    rows: [],
    otherwise: { team: 'boats', priority: 'normal', workingDays: 2, needsApproval: false },
  },
  approval: { step: { id: 's', label: 'S', group: 'boats' } },
  deadline: { calendar: 'desk', remindBefore: 0, escalateAfter: 0, escalateTo: 'boats' },
};

describe('an installation from before forms had parts', () => {
  it('keeps its drafts and releases, with their questions as parts and their rules as sentences', () => {
    const db = new Sqlite(join(folder, 'old.sqlite'));
    for (const name of ['0000_ground', '0001_requests_created'])
      for (const statement of statements(name)) db.exec(statement);
    db.prepare('INSERT INTO forms (id, key, register_id, draft, version, release) VALUES (?, ?, ?, ?, 1, 1)').run(
      'f',
      'access',
      'r',
      JSON.stringify(OLD),
    );
    db.prepare(
      'INSERT INTO releases (id, form_id, number, design, note, released_by, released_at) VALUES (?, ?, 1, ?, ?, ?, 0)',
    ).run('x', 'f', JSON.stringify(OLD), '', 'p');
    for (const statement of statements('0002_form_workshop')) db.exec(statement);
    const { draft } = db.prepare('SELECT draft FROM forms').get() as { draft: string };
    const { design } = db.prepare('SELECT design FROM releases').get() as { design: string };
    db.close();
    expect(draft).toBe(design);
    const read = formDesign.parse(withDeadlines(withPaths(renewed(JSON.parse(design)))));
    expect(read.parts).toEqual(OLD.questions.map((question) => ({ part: 'question', ...question })));
    expect(read.rules).toEqual([
      {
        id: 'r1',
        name: 'Boat',
        says: '',
        when: 'visitor = "x"',
        then: [{ do: 'show', parts: ['boat'] }],
        otherwise: [],
        on: false,
        runs: 'filling',
      },
    ]);
    expect(read).toMatchObject({ title: 'Come on site', unique: [], fields: OLD.fields });
  });
});
