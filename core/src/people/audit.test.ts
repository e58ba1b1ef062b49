import fc from 'fast-check';
import { expect, it } from 'vitest';
import { type Access, type AuditLine, accessAt, holdersIn } from './audit.ts';
import type { GroundChange } from './groundChange.ts';
import type { Entry } from './groups.ts';
import { RIGHTS, type Right } from './rights.ts';
import type { RegisterRights } from './rightsAt.ts';

const PEOPLE = ['p', 'q', 'r'] as const;
const GROUPS = ['a', 'b', 'c'] as const;
const DAYS = ['2026-03-01', '2026-03-02', '2026-03-03'] as const;
const border = fc.option(fc.constantFrom(...DAYS), { nil: null, freq: 3 });
const somebody = fc.constantFrom(...PEOPLE);
const right = fc.constantFrom(...RIGHTS.slice(0, 4));

/** Something that is done, if it can be. */
const deed = fc.oneof(
  fc.record({ do: fc.constant('come' as const), who: somebody }),
  fc.record({ do: fc.constant('turn' as const), who: somebody }),
  fc.record({ do: fc.constant('give' as const), to: fc.constantFrom('*', 'a', 'b', '@p', '@q'), right }),
  fc.record({
    do: fc.constant('enter' as const),
    group: fc.constantFrom(...GROUPS),
    who: somebody,
    from: border,
    until: border,
  }),
  // A group comes into those that are named after it, so that no circle comes of it.
  fc.record({ do: fc.constant('nest' as const), from: border }),
  fc.record({ do: fc.constant('leave' as const), at: fc.nat(9) }),
  fc.record({
    do: fc.constant('differ' as const),
    register: fc.constantFrom('x', 'y'),
    to: fc.constantFrom('*', 'a', '@p'),
    right,
  }),
  fc.record({ do: fc.constantFrom('stand apart' as const, 'put back' as const), register: fc.constantFrom('x', 'y') }),
);

/** What a register says itself. */
interface Said {
  apart: boolean;
  rows: Map<string, boolean>;
}

/** What there is at a moment, kept as the commands keep it: one after the other, with a line for each. */
class Desk {
  staff = new Map<string, boolean>();
  entries: Entry[] = [];
  grants: { subject: string; right: Right }[] = [];
  lines: AuditLine[] = [];
  registers = new Map<string, Said>([
    ['x', { apart: false, rows: new Map() }],
    ['y', { apart: false, rows: new Map() }],
  ]);

  constructor(private at = 0) {}

  note(about: AuditLine['about'], key: string, change: GroundChange): void {
    this.lines.unshift({ at: this.at, about, key, change });
  }

  do(done: typeof deed extends fc.Arbitrary<infer Deed> ? Deed : never): void {
    this.at += 1;
    switch (done.do) {
      case 'come':
        if (this.staff.has(done.who)) return;
        this.staff.set(done.who, true);
        this.note('person', done.who, { kind: 'added' });
        break;
      case 'turn': {
        const was = this.staff.get(done.who);
        if (was === undefined) return;
        this.staff.set(done.who, !was);
        const [before, after] = was ? ['yes', 'no'] : ['no', 'yes'];
        this.note('person', done.who, {
          kind: 'changed',
          field: 'active',
          before: before ?? '',
          after: after ?? '',
        });
        break;
      }
      case 'give': {
        const at = this.grants.findIndex((each) => each.subject === done.to && each.right === done.right);
        if (at < 0) this.grants.push({ subject: done.to, right: done.right });
        else this.grants.splice(at, 1);
        const about = done.to === '*' ? 'everyone' : done.to.startsWith('@') ? 'person' : 'group';
        this.note(about, done.to.replace('@', ''), { kind: at < 0 ? 'given' : 'taken', right: done.right });
        break;
      }
      case 'differ':
        this.differ(done.register, done.to, done.right);
        break;
      case 'stand apart': {
        const there = this.of(done.register);
        there.apart = !there.apart;
        this.note('register', done.register, { kind: 'apart', register: done.register, on: there.apart });
        break;
      }
      case 'put back': {
        const was = this.saidOf(done.register);
        this.registers.set(done.register, { apart: false, rows: new Map() });
        this.note('register', done.register, { kind: 'put-back', ...was });
        break;
      }
      case 'enter':
        this.enter({ group: done.group, member: { person: done.who }, from: done.from, until: done.until });
        break;
      case 'nest':
        this.enter({ group: 'b', member: { group: 'a' }, from: done.from, until: null });
        break;
      case 'leave': {
        const [entry] = this.entries.splice(done.at, 1);
        if (entry) this.noteEntry('left', entry);
      }
    }
  }

  of(register: string): Said {
    return this.registers.get(register) as Said;
  }

  /** A right is given in a register where it was not, or not where it was: as the commands write it down. */
  differ(register: string, subject: string, of: Right): void {
    const { apart, rows } = this.of(register);
    const usual = !apart && this.grants.some((each) => each.subject === subject && each.right === of);
    const was = rows.get(`${subject} ${of}`);
    const given = !(was ?? usual) || (apart && was === false);
    const about = subject === '*' ? 'everyone' : subject.startsWith('@') ? 'person' : 'group';
    const said = { right: of, register, ...(was === undefined ? {} : { was }) };
    this.note(about, subject.replace('@', ''), { kind: given ? 'given' : 'taken', ...said });
    if (usual === given) rows.delete(`${subject} ${of}`);
    else rows.set(`${subject} ${of}`, given);
  }

  saidOf(register: string): RegisterRights {
    const { apart, rows } = this.of(register);
    const differences = [...rows].map(([key, given]) => {
      const [subject = '', of] = key.split(' ');
      return { subject, right: of as Right, given };
    });
    return { register, apart, differences };
  }

  enter(entry: Entry): void {
    if (this.entries.some((each) => JSON.stringify(each) === JSON.stringify(entry))) return;
    this.entries.push(entry);
    this.noteEntry('entered', entry);
  }

  noteEntry(kind: 'entered' | 'left', entry: Entry): void {
    const { member } = entry;
    this.note('group', entry.group, { kind, ...entry });
    if ('person' in member) this.note('person', member.person, { kind, ...entry });
    else this.note('group', member.group, { kind, ...entry });
  }

  get access(): Access {
    const registers = [...this.registers.keys()].map((each) => this.saidOf(each));
    return { staff: new Map(this.staff), entries: [...this.entries], grants: [...this.grants], registers };
  }
}

const held = (access: Access): readonly string[] =>
  DAYS.flatMap((day) => {
    const holders = holdersIn(access, day);
    return RIGHTS.slice(0, 5).flatMap((each) =>
      [undefined, 'x', 'y'].map((register) => `${day} ${each} ${register} ${[...holders(each, register)].sort()}`),
    );
  });

it('gives back what everybody could do at each moment of the past, from what is so now and what was set', () => {
  const seen = { moments: 0, 'others hold': 0 };
  fc.assert(
    fc.property(fc.array(deed, { minLength: 12, maxLength: 40, size: 'max' }), (deeds) => {
      const desk = new Desk();
      const states = [held(desk.access)];
      for (const each of deeds) {
        desk.do(each);
        states.push(held(desk.access));
      }
      for (const [moment, state] of states.entries()) {
        expect(held(accessAt(desk.access, desk.lines, moment))).toEqual(state);
        seen.moments += 1;
        if (JSON.stringify(state) !== JSON.stringify(states.at(-1))) seen['others hold'] += 1;
      }
    }),
    { numRuns: 150 },
  );
  console.log('moments of the past', seen);
  expect(seen['others hold']).toBeGreaterThan(500);
});

it('gives a right to everyone, by a group in a group, and to one person, as long as they can come in', () => {
  const access: Access = {
    staff: new Map([
      ['p', true],
      ['q', true],
      ['r', false],
    ]),
    entries: [
      { group: 'a', member: { person: 'p' }, from: null, until: '2026-03-02' },
      { group: 'b', member: { group: 'a' }, from: null, until: null },
    ],
    grants: [
      { subject: 'b', right: 'read:all' },
      { subject: '@q', right: 'rights' },
      { subject: '*', right: 'read:team' },
    ],
    registers: [
      {
        ...{ register: 'x', apart: false },
        differences: [
          { subject: '*', right: 'read:team', given: false },
          { subject: '@q', right: 'read:all', given: true },
        ],
      },
      { register: 'y', apart: true, differences: [{ subject: 'b', right: 'change:own', given: true }] },
    ],
  };
  expect(holdersIn(access, '2026-03-02')('read:all')).toEqual(['p']);
  expect(holdersIn(access, '2026-03-03')('read:all')).toEqual([]);
  expect(holdersIn(access, '2026-03-03')('rights')).toEqual(['q']);
  expect(holdersIn(access, '2026-03-03')('read:team')).toEqual(['p', 'q']);
  // A register gives more, or less; one that stands apart only what it gives itself, and what is the desk’s alone.
  const holders = holdersIn(access, '2026-03-02');
  expect([holders('read:team', 'x'), holders('read:all', 'x')]).toEqual([[], ['p', 'q']]);
  expect([holders('read:all', 'y'), holders('read:team', 'y'), holders('change:own', 'y')]).toEqual([[], [], ['p']]);
  expect([holders('rights', 'y'), holders('read:all', 'z')]).toEqual([['q'], ['p']]);
});
