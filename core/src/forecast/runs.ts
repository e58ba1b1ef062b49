import { chance } from './chance.ts';
import type { Change } from './change.ts';
import { type Arriving, type Followed, followedOf, weeksOf } from './followed.ts';
import type { Learned } from './learn.ts';
import type { Lengths } from './lengths.ts';
import type { DeskPast } from './life.ts';
import type { Outlook } from './outlook.ts';
import { Queue } from './queue.ts';
import { DECIDING, MANY, PAUSED, Road, type Way, WORKING } from './road.ts';
import { FINISHED } from './stations.ts';
import { Tally } from './tally.ts';

const WEEK = 7 * 86_400_000;
/** A request that comes to so many places in a run ends there: what goes in a circle would never end. */
const MOST_TURNS = 20;
/** Of so many of a team it is looked who has the least. */
const MOST_ASKED = 10;
/** So many turns have chances of their own. */
const TURNS = 32;
/** How soon it is decided where that is what is changed, ms of working time. */
const SOON = 2 * 3_600_000;

/** The days ahead of a desk, ready to be gone through as often as wanted, as they are or with something changed. */
export class Runs {
  private readonly road: Road;
  private readonly followed: readonly Followed[];
  private readonly promises: number;
  private readonly weeks: readonly (readonly Arriving[])[];

  // What is so in a run, by the number of the request: used again in the next.
  private readonly queues: Queue[] = [];
  private passed: Float64Array = new Float64Array(0);
  /** By when the last that came to each station has ended. */
  private ends: Float64Array = new Float64Array(0);
  private jobs: Followed[] = [];
  private readonly at: number[] = [];
  private readonly since: number[] = [];
  private readonly turns: number[] = [];
  private readonly nexts: number[] = [];
  private readonly handlers: number[] = [];
  private readonly loads: number[] = [];
  private still: Float64Array = new Float64Array(0);
  private left = 0;
  /** The teams whose requests are gone through; null for all. */
  private touched: ReadonlySet<string> | null = null;
  private goes: readonly boolean[] = [];

  /** `until`: how far is looked; `also`: times besides working hours that something changed may take. */
  constructor(
    private readonly desk: DeskPast,
    learned: Learned,
    until: number,
    also: readonly { readonly from: number; readonly to: number }[] = [],
  ) {
    this.road = new Road(desk, learned, until, also);
    this.followed = followedOf(desk, learned, this.road);
    this.promises = this.followed.reduce((sum, { dues }) => sum + dues.length, 0);
    this.weeks = weeksOf(desk, this.road);
  }

  /** How many requests are followed. */
  get size(): number {
    return this.followed.length;
  }

  /**
   * Goes through the days ahead `runs` times. The same seed gives the same, whatever is changed. What is changed changes
   * the teams that it touches: requests of others are left out, and nothing is said of them.
   */
  run({ runs, seed, change }: { runs: number; seed: number; change?: Change | undefined }): readonly Outlook[] {
    this.touched = change ? this.touchedBy(change) : null;
    this.goes = this.followed.map(({ team }) => this.touched?.has(team) ?? true);
    const tally = new Tally(this.followed.length, this.promises, runs);
    const open = this.road.openWith(change);
    while (this.queues.length < open.length) this.queues.push(new Queue());
    this.passed = new Float64Array(open.length);
    this.ends = new Float64Array(open.length);
    this.still = new Float64Array(this.promises);
    for (let run = 0; run < runs; run += 1) this.once(run, seed, change, tally, open);
    return this.followed.flatMap(({ id, first, dues }, request) =>
      dues.map(({ key, due, left, isLate, clock, moves }, place): Outlook => {
        const isBeyond = left === null ? due > this.road.until : left > clock.until(this.road.until);
        return {
          ...{ id, key, due, left, isLate, isStill: moves, ends: 'finished', finish: tally.finishOf(request) },
          chance: isLate ? 1 : isBeyond || this.goes[request] !== true ? null : tally.chanceOf(first + place),
        };
      }),
    );
  }

  /** The teams that something changed can make any difference to. */
  private touchedBy(change: Change): ReadonlySet<string> {
    if (change.do === 'longer') return new Set([change.team]);
    const person = change.do === 'hand-over' ? this.road.numberOf(change.person) : -2;
    const some = this.followed.filter(({ handler, form }) =>
      change.do === 'decide' ? form === change.form : handler === person,
    );
    return new Set(some.map(({ team }) => team));
  }

  private once(
    run: number,
    seed: number,
    change: Change | undefined,
    tally: Tally,
    open: readonly Float64Array[],
  ): void {
    const { queues, passed, road } = this;
    this.begin(change);
    const chances = { run, seed, change };
    for (let job = 0; job < this.followed.length; job += 1) {
      const of = this.followed[job] as Followed;
      if (this.goes[job]) this.enter(job, of.place, this.desk.now, of.had, chances);
      else this.nexts[job] = -1;
    }
    const arriving = this.arriving(run, seed);
    let arrived = 0;
    for (let step = 0; step < road.from.length && this.left > 0; step += 1) {
      const from = road.from[step] as number;
      const to = road.to[step] as number;
      for (let next = arriving[arrived]; next && next.at < to; next = arriving[++arrived]) {
        const job = this.jobs.length;
        this.jobs.push(next.of);
        this.handlers[job] = -1;
        this.turns[job] = 0;
        if (this.touched?.has(next.of.team) ?? true) this.enter(job, next.of.place, next.at, 0, chances);
      }
      for (let station = 0; station < open.length; station += 1) {
        const queue = queues[station] as Queue;
        if (queue.size === 0) continue;
        const time = (open[station] as Float64Array)[step] as number;
        if (time === 0) continue;
        const part = (road.parts[station] as Float64Array)[Math.min(queue.size, MANY - 1)] as number;
        const speed = (road.speeds[station] as number) * part;
        const began = passed[station] as number;
        const ends = began + time * speed;
        passed[station] = ends;
        while (queue.nearest <= ends) {
          const at = from + Math.max(0, (queue.nearest - began) / (ends - began)) * (to - from);
          const job = queue.take();
          this.leave(job, at);
          const turn = (this.turns[job] as number) + 1;
          this.turns[job] = turn;
          const next = this.nexts[job] as number;
          if (next === FINISHED || turn >= MOST_TURNS) this.finish(job, run, at, tally);
          else this.enter(job, next, at, 0, chances);
        }
      }
    }
    for (let job = 0; job < this.followed.length && this.left > 0; job += 1)
      if (this.nexts[job] !== -1) {
        this.leave(job, road.until);
        this.judge(job, road.until, tally);
      }
  }

  private begin(change: Change | undefined): void {
    for (const queue of this.queues) queue.clear();
    this.passed.fill(0);
    this.ends.fill(0);
    this.still.fill(0);
    this.jobs = [...this.followed];
    this.left = this.goes.filter((each) => each).length;
    for (let person = 0; person < this.road.desks.length; person += 1) this.loads[person] = 0;
    const gives = change?.do === 'hand-over' ? this.road.numberOf(change.person) : -2;
    for (let job = 0; job < this.followed.length; job += 1) {
      const { handler } = this.followed[job] as Followed;
      const keeps = handler !== gives;
      this.handlers[job] = keeps ? handler : -1;
      if (keeps && handler >= 0) this.loads[handler] = (this.loads[handler] as number) + 1;
      this.turns[job] = 0;
    }
  }

  private enter(
    job: number,
    place: number,
    at: number,
    had: number,
    { run, seed, change }: { readonly run: number; readonly seed: number; readonly change: Change | undefined },
  ): void {
    const { way, form } = this.jobs[job] as Followed;
    this.at[job] = place;
    this.since[job] = at;
    const station =
      place === WORKING
        ? (this.road.desks[this.handlerOf(job, way, at, change)] as number)
        : (way.stations[place] as number);
    const turn = job * TURNS + (this.turns[job] as number);
    const drawn = (way.lengths[place] as Lengths).draw(had, chance(seed, run, turn));
    this.nexts[job] = drawn.next;
    const isSoon = change?.do === 'decide' && place === DECIDING && this.turns[job] === 0 && form === change.form;
    const left = isSoon ? Math.min(SOON, drawn.length - had) : drawn.length - had;
    const passed = this.passed[station] as number;
    // In turn, it begins when what came before it has ended.
    const begins = this.road.inTurn[station] ? Math.max(passed, this.ends[station] as number) : passed;
    this.ends[station] = begins + left;
    (this.queues[station] as Queue).add(begins + left, job);
  }

  /** Whoever has it in hand already, else whoever of the team is there and has the least. */
  private handlerOf(job: number, { crew, nobody }: Way, at: number, change: Change | undefined): number {
    const had = this.handlers[job] as number;
    if (had >= 0) return had;
    const isOut = change?.do === 'hand-over' ? this.road.numberOf(change.person) : -2;
    let best = -1;
    // Of many, some are looked at, others each time.
    const some = Math.min(MOST_ASKED, crew.length);
    for (let place = 0; place < some; place += 1) {
      const person = crew[(job * MOST_ASKED + place) % crew.length] as number;
      if (person === isOut || this.road.isAway(person, at)) continue;
      if (best < 0 || this.loadOf(person) < this.loadOf(best)) best = person;
    }
    if (best < 0) best = crew[0] ?? nobody;
    this.handlers[job] = best;
    this.loads[best] = this.loadOf(best) + 1;
    return best;
  }

  private loadOf = (person: number): number => this.loads[person] ?? 0;

  private leave(job: number, at: number): void {
    if (job >= this.followed.length || this.at[job] !== PAUSED) return;
    const since = this.since[job] as number;
    const { dues, first } = this.followed[job] as Followed;
    for (let due = 0; due < dues.length; due += 1)
      if (dues[due]?.stands)
        this.still[first + due] = (this.still[first + due] as number) + (dues[due]?.clock.between(since, at) ?? 0);
  }

  private finish(job: number, run: number, at: number, tally: Tally): void {
    const handler = this.handlers[job] as number;
    if (handler >= 0) this.loads[handler] = this.loadOf(handler) - 1;
    if (job >= this.followed.length) return;
    this.nexts[job] = -1;
    this.left -= 1;
    tally.finished(job, run, at);
    this.judge(job, at, tally);
  }

  /** Looks which promises of a request were not kept by a moment. */
  private judge(job: number, at: number, tally: Tally): void {
    const { dues, first } = this.followed[job] as Followed;
    for (let each = 0; each < dues.length; each += 1) {
      const { due, left, clock } = dues[each] as Followed['dues'][number];
      const isLate = left === null ? at > due : clock.until(at) - (this.still[first + each] as number) > left;
      if (isLate) tally.addLate(first + each);
    }
  }

  /** What arrives in a run: for each week to come one of the last ones, by chance. */
  private arriving(run: number, seed: number): readonly { readonly at: number; readonly of: Followed }[] {
    const all: { at: number; of: Followed }[] = [];
    const { now } = this.desk;
    for (let week = 0; now + week * WEEK < this.road.until; week += 1) {
      const like = this.weeks[Math.floor(chance(seed, run, -1 - week) * this.weeks.length)] ?? [];
      for (const { after, of } of like) all.push({ at: now + week * WEEK + after, of });
    }
    return all;
  }
}
