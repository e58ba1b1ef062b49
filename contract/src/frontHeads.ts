import { deskHeads } from './desk/heads.ts';
import { absenceHeads, accountHeads, signInHeads } from './groundwork/heads.ts';
import { houseHeads } from './house/heads.ts';
import { incomingHeads } from './incoming/heads.ts';
import { intakeHeads } from './intake/heads.ts';
import { sharedHeads, viewHeads } from './view/heads.ts';

/** How the routes are called that whoever asks needs: what a phone has to have before one can type. */
export const frontHeads = {
  ...houseHeads,
  ...intakeHeads,
  ...viewHeads,
  ...sharedHeads,
  ...deskHeads,
  ...incomingHeads,
  ...accountHeads,
  ...signInHeads,
  ...absenceHeads,
} as const;
