import type { AnswerOf } from '@tolvek/contract';
import { describe, expect, it } from 'vitest';
import { moveTo, NO_WAY, wayTo } from './boardMoves.ts';

const SHEET = {
  stage: { key: 'arrived', label: 'Arrived' },
  moves: [{ key: 'working', label: 'In progress' }],
  notNow: [{ label: 'Finished', whyNot: '“Skipper” is missing.' }],
  may: { move: true, assign: true },
  handler: null,
  assignable: [{ id: 'p1', name: 'One' }],
  teams: [
    { key: 'boats', name: 'Boats', here: true },
    { key: 'stores', name: 'Stores', here: false },
  ],
  priority: 'normal',
  values: {
    fields: [
      { key: 'area', value: 'bay', writable: true },
      { key: 'paid', value: true, writable: true },
      { key: 'fee', value: null, writable: false, why: 'It is computed.' },
      { key: 'level', value: 20, writable: true },
    ],
  },
  fieldTypes: {
    area: { kind: 'choice', options: [] },
    paid: { kind: 'yes-no' },
    fee: { kind: 'choice', options: [] },
    level: { kind: 'level', levels: [] },
  },
} as unknown as AnswerOf<'sheet'>;

const way = (subject: string, value: string | number | null, label = '', sheet = SHEET) =>
  wayTo(sheet, subject, { value, label });

describe('where something may be moved', () => {
  it('is what its sheet lets whoever has it do, with the reason it gives', () => {
    expect(way('request.stage', 'arrived')).toBe('here');
    expect(way('request.stage', 'working')).toBe('open');
    expect(way('request.stage', 'done', 'Finished')).toEqual({ whyNot: '“Skipper” is missing.' });
    expect(way('request.stage', 'elsewhere', 'Elsewhere')).toEqual({ whyNot: NO_WAY });
    expect(way('request.stage', 'working', '', { ...SHEET, may: { ...SHEET.may, move: false } })).toEqual({
      whyNot: NO_WAY,
    });
    expect([way('request.handler', null), way('request.handler', 'p1')]).toEqual(['here', 'open']);
    expect(way('request.handler', 'p2')).toEqual({ whyNot: NO_WAY });
    expect([way('request.team', 'boats'), way('request.team', 'stores')]).toEqual(['here', 'open']);
    expect(way('request.team', null)).toEqual({ whyNot: NO_WAY });
    expect([way('request.priority', 'normal'), way('request.priority', 'high')]).toEqual(['here', 'open']);
    expect(way('request.priority', 'high', '', { ...SHEET, teams: [] })).toEqual({ whyNot: NO_WAY });
  });

  it('is a field that may be written; a yes stands as a one where the database reads it', () => {
    expect([way('area', 'bay'), way('area', 'sea'), way('area', null)]).toEqual(['here', 'open', 'open']);
    expect([way('paid', 1), way('paid', 0)]).toEqual(['here', 'open']);
    expect([way('level', 20), way('level', 30)]).toEqual(['here', 'open']);
    expect(way('fee', 'low')).toEqual({ whyNot: 'It is computed.' });
    expect(way('fee', null)).toBe('here');
    expect(way('gone', 'x')).toEqual({ whyNot: NO_WAY });
  });
});

describe('a move', () => {
  it('asks the desk for what the sheet would', () => {
    expect(moveTo(SHEET, 'request.stage', 'working')).toEqual({ does: 'moveStage', body: { stage: 'working' } });
    expect(moveTo(SHEET, 'request.handler', null)).toEqual({ does: 'assign', body: { person: null } });
    expect(moveTo(SHEET, 'request.team', 'stores')).toEqual({
      does: 'reroute',
      body: { team: 'stores', priority: 'normal' },
    });
    expect(moveTo(SHEET, 'request.priority', 'high')).toEqual({
      does: 'reroute',
      body: { team: 'boats', priority: 'high' },
    });
    const changes = (subject: string, value: string | number | null) => moveTo(SHEET, subject, value).body;
    expect(changes('area', 'sea')).toEqual({ changes: { area: 'sea' } });
    expect(changes('area', null)).toEqual({ changes: { area: '' } });
    expect(changes('paid', 1)).toEqual({ changes: { paid: true } });
    expect(changes('level', 30)).toEqual({ changes: { level: 30 } });
  });
});
