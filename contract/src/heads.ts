import { deskHeads } from './desk/heads.ts';
import { directoryHeads } from './directory/heads.ts';
import {
  absenceHeads,
  accountHeads,
  groundDeletionHeads,
  importHeads,
  peopleHeads,
  pictureHeads,
  profileHeads,
  rightHeads,
  settingHeads,
  signInHeads,
  startHeads,
  stepBackHeads,
} from './groundwork/heads.ts';
import { houseHeads } from './house/heads.ts';
import { intakeHeads } from './intake/heads.ts';
import { noticeHeads } from './notice/heads.ts';
import { sharedHeads, viewHeads } from './view/heads.ts';
import {
  accessHeads,
  calendarHeads,
  doorHeads,
  formHeads,
  mailingHeads,
  manyHeads,
  registerHeads,
  tryingHeads,
  vocabularyHeads,
  wayHeads,
} from './workshop/heads.ts';

/** How every route is called, by name: without schemas, for the browser. */
export const heads = {
  ...houseHeads,
  ...intakeHeads,
  ...viewHeads,
  ...sharedHeads,
  ...deskHeads,
  ...noticeHeads,
  ...formHeads,
  ...doorHeads,
  ...mailingHeads,
  ...tryingHeads,
  ...wayHeads,
  ...manyHeads,
  ...registerHeads,
  ...accessHeads,
  ...vocabularyHeads,
  ...calendarHeads,
  ...startHeads,
  ...accountHeads,
  ...signInHeads,
  ...pictureHeads,
  ...settingHeads,
  ...absenceHeads,
  ...groundDeletionHeads,
  ...stepBackHeads,
  ...importHeads,
  ...profileHeads,
  ...peopleHeads,
  ...rightHeads,
  ...directoryHeads,
} as const;
