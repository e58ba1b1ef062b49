import { directoryHeads } from './directory/heads.ts';
import { findHeads } from './find/heads.ts';
import { forecastHeads } from './forecast/heads.ts';
import { frontHeads } from './frontHeads.ts';
import {
  groundDeletionHeads,
  importHeads,
  peopleHeads,
  pictureHeads,
  profileHeads,
  rightHeads,
  settingHeads,
  startHeads,
  stepBackHeads,
} from './groundwork/heads.ts';
import { noticeHeads } from './notice/heads.ts';
import { programHeads } from './program/heads.ts';
import { reportHeads } from './report/heads.ts';
import { rosterHeads } from './roster/heads.ts';
import { serviceHeads } from './service/heads.ts';
import { savedViewHeads } from './view/heads.ts';
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
  ...frontHeads,
  ...findHeads,
  ...forecastHeads,
  ...serviceHeads,
  ...reportHeads,
  ...rosterHeads,
  ...savedViewHeads,
  ...programHeads,
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
  ...pictureHeads,
  ...settingHeads,
  ...groundDeletionHeads,
  ...stepBackHeads,
  ...importHeads,
  ...profileHeads,
  ...peopleHeads,
  ...rightHeads,
  ...directoryHeads,
} as const;
