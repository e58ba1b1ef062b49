import type { fixes as english } from '../en/fixes.ts';
import type { Same } from '../same.ts';

export const fixes: Same<typeof english> = {
  writeAs: '{{text}} schreiben',
  removeRule: 'Regel entfernen',
  useDefault: 'Stattdessen eine Vorgabe nutzen',
  alwaysShow: 'Immer zeigen und Regel entfernen',
  removeFromRule: 'Aus der Regel nehmen',
  removeField: 'Feld entfernen',
  addQuestion: 'Frage dazu hinzufügen',
  removeQuestion: 'Aus dem Formular nehmen',
  addOption: 'Option hinzufügen',
  removeRetired: 'Stillgelegte Optionen entfernen',
  addRow: 'Zeile dafür hinzufügen',
  removeDefault: 'Vorgabe entfernen',
  removeLimit: 'Einschränkung der Liste entfernen',
  removeOrder: 'Diese Grenze entfernen',
  removeUnique: 'Prüfung auf Doppelte entfernen',
  notAgain: 'Dafür nicht erneut fragen',
  alwaysAsk: 'Diesen Schritt immer fragen',
  removeColumn: 'Spalte entfernen',
  removeFromText: 'Aus dem Text nehmen',
  removeDifference: 'Diese Abweichung entfernen',
  removeShown: 'Sie aus der Liste entfernen',
  removeStage: 'Den Stand entfernen',
  callSo: 'Diese Namen lesen lassen',
  presetProfile: 'Profil als Vorgabe nutzen',
};
