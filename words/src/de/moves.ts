import type { moves as english } from '../en/moves.ts';
import type { Same } from '../same.ts';

export const moves: Same<typeof english> = {
  onlyThese: 'Das können nur: {{who, or}}.',
  dependsOnHidden:
    'Das hängt von einem Feld ab, das hier nicht alle lesen dürfen. Bitten Sie die Koordination, die Anfrage weiterzuführen.',
  fillInFirst: 'Füllen Sie zuerst {{fields, names}} aus.',
  onceTrue: 'Das geht, sobald diese Bedingung zutrifft: {{condition}}.',
  conditionUnreadable: 'Die Bedingung dieses Schritts ist fehlerhaft. Bitten Sie die Koordination, sie zu korrigieren.',
  twice: 'Von „{{stage}}“ führen zwei Schritte zur selben Stufe. Entfernen Sie einen.',
  nowhere: 'Von „{{stage}}“ führt ein Schritt ins Leere. Wählen Sie eine Stufe, oder entfernen Sie den Schritt.',
  notByHand:
    'Von „{{stage}}“ nach „{{to}}“: Dorthin führt niemand eine Anfrage von Hand. Das tun Entscheidungen und anfragende Personen. Entfernen Sie den Schritt.',
  noField: 'Von „{{stage}}“ nach „{{to}}“: Ein Feld gibt es nicht mehr. Wählen Sie ein anderes.',
  condition: 'Von „{{stage}}“ nach „{{to}}“: {{message}}',
};
