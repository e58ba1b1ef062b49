import type { rules as english } from '../en/rules.ts';
import type { Same } from '../same.ts';

export const rules: Same<typeof english> = {
  show: '{{names, names}} zeigen',
  hide: '{{names, names}} verbergen',
  require: '{{names, names}} verlangen',
  lock: '{{names, names}} sperren',
  clear: '{{names, names}} leeren',
  set: '„{{name}}“ auf {{value}} setzen',
  setOver: '„{{name}}“ auf {{value}} setzen, was auch geantwortet wurde',
  limit: 'bei „{{name}}“ nur {{options, names}} anbieten',
  warn: 'warnen: „{{text}}“',
  warnAt: 'bei „{{name}}“ warnen: „{{text}}“',
  refuse: 'ablehnen: „{{text}}“',
  refuseAt: 'bei „{{name}}“ ablehnen: „{{text}}“',
  jump: 'von {{after}} bei {{to}} fortsetzen',
  firstPage: 'der ersten Seite',
  end: 'dem Ende',
  nothing: 'nichts',
  when: 'Wenn {{condition}}: {{actions, and}}',
  whenElse: 'Wenn {{condition}}: {{actions, and}}. Sonst: {{otherwise, and}}',
  atSaving: '{{sentence}} (bei jedem Speichern)',
  off: 'Aus: {{sentence}}',
};
