import type { FormDesign } from '@tolvek/core/form';

const HOUR = 3_600_000;
const HOURS = (within: number, remind: number) => ({ within: within * HOUR, remind: remind * HOUR });

/** Dive plans as they are decided from the second release on: by several officers, then the lead, and deep ones once more. */
export const decidedByOfficers = (draft: FormDesign): FormDesign => ({
  ...draft,
  routing: {
    columns: [
      { id: 'where', label: 'Site', input: 'site' },
      { id: 'deep', label: 'Greatest depth', input: 'depth' },
    ],
    rows: [
      {
        id: 'row-shallow',
        note: 'From the pier in shallow water one officer is enough',
        cells: { where: '"pier"', deep: '<= 10' },
        outcome: { ...draft.routing.otherwise, path: 'shallow' },
      },
    ],
    otherwise: { ...draft.routing.otherwise, path: 'path' },
  },
  approval: {
    paths: [
      {
        id: 'path',
        label: 'Dive from a boat',
        again: ['depth', 'gas'],
        steps: [
          {
            ...{ id: 'officers', label: 'Safety officers', needed: 2 },
            seats: [{ group: 'dive-safety' }, { group: 'dive-safety' }, { group: 'site-safety' }],
            instead: [{ group: 'duty-managers' }],
            limit: { ...HOURS(16, 4), silence: 'pass' },
          },
          {
            ...{ id: 'lead', label: 'Head of science', needed: 1, seats: [{ profile: 'lead' }] },
            instead: [{ group: 'duty-managers' }],
            limit: { ...HOURS(16, 4), silence: 'tell' },
          },
          {
            ...{ id: 'deep', label: 'Duty manager', needed: 1, seats: [{ group: 'duty-managers' }] },
            when: 'depth > 30',
          },
        ],
      },
      {
        ...{ id: 'shallow', label: 'Shallow dive from the pier' },
        steps: [
          {
            ...{ id: 'officer', label: 'Dive officer', needed: 1, seats: [{ group: 'dive-safety' }] },
            limit: { ...HOURS(9, 2), silence: 'tell' },
          },
        ],
      },
    ],
  },
});

const diver = (name: string, grade: number) => ({ name, grade, checked: '2027-04-30' });
const dive = (site: string, depth: string, bottom_time: string) => ({
  ...{ site, depth, bottom_time, day: '2026-12-02', gas: 'air' },
  divers: [diver('Ruadhan Pell', 30), diver('Mireille Thorsby', 20)],
});

/** Plans that wait for different steps: who asks, what, and who has agreed by now, at which step. */
export const WAITING_DIVES = [
  { by: 'Ruadhan Pell', answers: dive('pier', '6', '35'), agreed: [] },
  { by: 'Mireille Thorsby', answers: dive('kelp', '18', '45'), agreed: ['Gunnar Peverell'] },
  { by: 'Ruadhan Pell', answers: dive('wreck', '34', '18'), agreed: ['Maeve Castellanos', 'Oskar Veldhuis'] },
] as const;
