import type { pages as english } from '../en/pages.ts';
import type { Same } from '../same.ts';

export const pages: Same<typeof english> = {
  questions: 'Fragen',
  rules: 'Regeln',
  routing: 'Zuordnung',
  approval: 'Genehmigung und Fristen',
  access: 'Zugriff',
  doors: 'Türen und Ausgaben',
  inOut: 'Import und Export',
  editions: 'Fassungen',
  notices: 'Mitteilungen',
  mailings: 'Verschicken',
  languages: 'Sprachen',
};
