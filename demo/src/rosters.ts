import type { Roster } from '@tolvek/core/roster';

/** The rosters of the station. `id`: who somebody is, by name. */
export const rostersBy = (id: (name: string) => string): readonly Roster[] => [
  {
    ...{ key: 'boat-watch', name: 'Boat watch', zone: 'Europe/Dublin', calendar: 'boats', needed: 'open' },
    shifts: [
      {
        ...{ id: 'week', name: 'Week', days: [1, 2, 3, 4, 5], from: '07:00', to: '16:00', skipsClosed: true },
        people: ['Bram Solheim', 'Signe Halvard', 'Yusuf Marchetti'].map(id),
        ...{ passes: { every: 1, of: 'weeks' }, since: '2026-11-02' },
      },
      {
        ...{ id: 'saturday', name: 'Saturday', days: [6], from: '07:00', to: '13:00', skipsClosed: true },
        people: ['Signe Halvard', 'Bram Solheim'].map(id),
        ...{ passes: { every: 1, of: 'times' }, since: '2026-11-07' },
      },
    ],
    swaps: [
      {
        ...{ id: 'dentist', from: '2026-11-26T07:00', until: '2026-11-26T12:00', note: 'Dentist' },
        ...{ instead: id('Bram Solheim'), by: id('Signe Halvard') },
      },
    ],
  },
  {
    ...{ key: 'duty-manager', name: 'Duty manager', zone: 'Europe/Dublin', calendar: 'desk', needed: 'always' },
    tells: true,
    // Passes on Fridays at four, so that nobody begins in the middle of the night.
    shifts: [
      {
        ...{ id: 'all', name: '', days: [1, 2, 3, 4, 5, 6, 7], from: '16:00', to: '16:00' },
        people: ['Tomas Achterberg', 'Edda Kilbride', 'Lorcan Abernethy'].map(id),
        ...{ passes: { every: 1, of: 'weeks' }, since: '2026-10-30' },
      },
    ],
    swaps: [],
  },
];
