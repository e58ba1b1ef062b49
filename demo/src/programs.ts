import type { Program } from '@tolvek/core/program';
import type { NoticeRule } from '@tolvek/core/telling';

const LOG = 'boat-log';

/** The program in which the boats of the station write their log. `url`: of the desk. `register`: by its id. */
export const boatLog = (url: string, register: string): Program => ({
  ...{ key: LOG, name: 'Boat log', note: 'On the computer in the boat house; ask Bram' },
  // The stand-in that ships: what it is told stands in the Mailroom.
  address: `${url}/api/stand-in/programs/boat-log`,
  may: [
    { right: 'read:all', register },
    { right: 'change:all', register },
  ],
  groups: ['boats'],
});

/** What the boat log is told of a trip, and the watch by telephone. */
export const TOLD_LOG: readonly NoticeRule[] = [
  {
    ...{ key: 'log-trip', name: 'Trip into the boat log', on: { is: 'stage', stages: ['in_hand'] } },
    ...{ to: [{ program: LOG }], answers: true, subject: '', text: 'Trip {request.number} goes ahead.' },
    goes: { goes: 'at-once' },
  },
  {
    ...{ key: 'now-urgent', name: 'A trip is urgent now', on: { is: 'priority' }, to: [{ duty: 'boat-watch' }] },
    ...{ answers: false, subject: '', text: 'Trip {request.number} has another priority now: {request.priority}.' },
    ...{ goes: { goes: 'at-once' }, ways: ['email', 'text'] },
  },
];
