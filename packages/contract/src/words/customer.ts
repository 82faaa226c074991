/** What customers read: quote, report, bill and messages, in each of their languages. Placeholders in braces are filled by `say`. */
import type { BodyOf, InvoiceLine } from '@veglia/core';

type Repair = 'replace' | 'reseat' | 'put-right' | 'drain' | 'part' | 'reflash' | 'workaround';
/** Words for customers, one language. */
export interface CustomerWords {
  readonly quote: {
    readonly title: string;
    readonly date: string;
    readonly validUntil: string;
    readonly found: string;
    readonly likely: string;
    readonly proven: string;
    readonly options: string;
    readonly range: string;
    readonly flaw: string;
    readonly panel: string;
    readonly fee: string;
    readonly accept: string;
  };
  readonly option: Record<NonNullable<BodyOf<'quote.answered'>['option']>, string>;
  readonly line: Record<InvoiceLine['what'] | 'consumables' | 'other', string>;
  readonly labour: string;
  readonly sum: {
    readonly net: string;
    readonly tax: string;
    readonly taxHeld: string;
    readonly total: string;
    readonly upTo: string;
    readonly paid: string;
    readonly due: string;
    readonly nothing: string;
    readonly rounding: string;
  };
  readonly invoice: { readonly title: string; readonly number: string; readonly date: string; readonly for: string };
  readonly report: {
    readonly title: string;
    readonly dates: string;
    readonly open: string;
    readonly reported: string;
    readonly wrong: string;
    readonly unknown: string;
    readonly how: string;
    readonly steps: string;
    readonly done: string;
    readonly nothingDone: string;
    readonly settings: string;
    readonly part: string;
    readonly firmware: string;
    readonly ownKept: string;
    readonly seen: string;
    readonly starts: string;
    readonly soak: string;
    readonly remains: string;
    readonly modified: string;
    readonly modification: string;
    readonly oldPart: string;
    readonly warranty: string;
    readonly warrantyText: string;
    readonly noWarranty: string;
    readonly cautions: string;
    readonly caution: string;
    readonly sign: string;
  };
  readonly outcome: Record<BodyOf<'job.closed'>['outcome'], string>;
  readonly how: Record<NonNullable<BodyOf<'fault.confirmed'>['how']>, string>;
  readonly repair: Record<Repair, string>;
  readonly source: Record<BodyOf<'part.fitted'>['source'], string>;
  readonly oldPart: Record<NonNullable<BodyOf<'set.collected'>['oldPart']>, string>;
  readonly payment: Record<NonNullable<BodyOf<'set.collected'>['payment']>, string>;
  readonly common: {
    readonly job: string;
    readonly customer: string;
    readonly set: string;
    readonly size: string;
    readonly serial: string;
  };
  readonly message: Record<BodyOf<'message.sent'>['template'], string>;
}

/** English. */
export const customerEn: CustomerWords = {
  quote: {
    title: 'Quote',
    date: 'Date: {date}',
    validUntil: 'Valid until {date}',
    found: 'What we found',
    likely: 'The most likely cause is: {what}. It is not proven yet.',
    proven: 'The fault is found: {what}.',
    options: 'You can choose',
    range: 'The total is between {low} and {high}. We will not exceed {high} without asking you.',
    flaw: 'What will not work as before',
    panel: 'A panel is rarely available and costs almost as much as a new set.',
    fee: 'If the set is not repaired, only the diagnostic fee of {amount} is due.',
    accept: 'I accept: option, date, signature',
  },
  option: {
    repair: 'Repair',
    'with-known-flaw': 'Cheaper repair with a known defect',
    workaround: 'Workaround',
    'diagnose-only': 'Diagnosis only',
    'hand-back': 'Return without repair',
    donor: 'Repair with parts from a donor set',
  },
  line: {
    labour: 'Labour',
    part: 'Part',
    'diagnostic-fee': 'Diagnostic fee',
    consumables: 'Consumables',
    other: 'Other',
    'agreed-at-most': 'Reduced to the agreed amount',
    warranty: 'Covered by our warranty',
    goodwill: 'Reduced as a goodwill gesture',
  },
  labour: 'Labour, {n} min',
  sum: {
    net: 'Net',
    tax: 'Tax {percent} %',
    taxHeld: 'includes tax {percent} %',
    total: 'Total',
    upTo: 'At most',
    paid: 'Paid: {how}',
    due: 'To pay',
    nothing: 'Nothing to pay.',
    rounding: 'Tax is rounded once per rate, half away from zero.',
  },
  invoice: { title: 'Invoice', number: 'Invoice {number}', date: 'Date: {date}', for: 'Repair of {set}, job {n}' },
  report: {
    title: 'Repair report',
    dates: 'Checked in {from}, finished {to}',
    open: 'Checked in {from}, not finished yet',
    reported: 'Fault reported',
    wrong: 'What was wrong',
    unknown: 'The cause was not confirmed.',
    how: 'How it was found',
    steps: 'Tests: {tests}, measurements: {readings}.',
    done: 'What was done',
    nothingDone: 'Nothing was repaired.',
    settings: 'Settings corrected or reset',
    part: 'Part fitted: {what}, number {number}, {source}',
    firmware: 'Firmware written: {what}',
    ownKept: 'Settings and data of the set were kept.',
    seen: 'How it was tested',
    starts: '{n} starts, {cold} of them cold',
    soak: 'Ran for {hours} h without a break',
    remains: 'What remains',
    modified: 'Modified',
    modification: '{name}. No longer works: {lost}',
    oldPart: 'Old part',
    warranty: 'Our warranty',
    warrantyText: '{days} days on this repair, until {date}. It covers the work and the parts listed above.',
    noWarranty: 'No warranty on this work.',
    cautions: 'Please note',
    caution:
      'Do not open the set: mains voltage, and parts that stay charged after unplugging. If it smells, smokes or sparks, unplug it and call us.',
    sign: 'Received: date and signature',
  },
  outcome: {
    repaired: 'Repaired',
    'repaired-with-known-flaw': 'Repaired, a known defect remains',
    workaround: 'Working by a workaround',
    'not-worth-it': 'Not economical to repair',
    'handed-back': 'Returned unrepaired',
  },
  how: {
    'both-ways': 'The fault came and went with the part.',
    measured: 'It was measured.',
    'cured-by-repair': 'The repair cleared it.',
    'not-proven': 'It is the most likely cause; it was not proven.',
  },
  repair: {
    replace: '{what} replaced',
    reseat: '{what} cleaned or replaced',
    'put-right': '{what}: cause removed',
    drain: 'Set drained of power and reset',
    part: 'Part replaced on: {what}',
    reflash: 'Firmware rewritten on: {what}',
    workaround: 'Workaround on: {what}',
  },
  source: {
    new: 'new',
    refurbished: 'refurbished',
    pulled: 'used, tested',
    donor: 'used, from a donor set',
    'own-stock': 'from our stock',
  },
  oldPart: {
    'shown-and-given': 'You received the old part.',
    'shown-and-kept': 'You were shown the old part; we kept it.',
    'returned-to-supplier': 'The old part went back to the supplier.',
    disposed: 'The old part was recycled.',
  },
  payment: { cash: 'cash', card: 'card', transfer: 'bank transfer', open: 'open', 'nothing-to-pay': 'nothing to pay' },
  common: { job: 'Job {n}', customer: 'Customer', set: 'Set', size: '{n} inch', serial: 'Serial {serial}' },
  message: {
    quote: '{shop}: we know what is wrong with your {set} (job {n}). Repair: {amount}. Please call us or answer this message.',
    ready: '{shop}: your {set} (job {n}) is ready to be collected. To pay: {amount}.',
    'part-late': '{shop}: a part for your {set} (job {n}) comes later than expected. We will tell you when it is here.',
    collect: '{shop}: your {set} (job {n}) has been ready for {days} days. Please collect it.',
    trial: '{shop}: how is your {set} (job {n}) doing? The trial ends on {date}. Please tell us.',
  },
};

/** German. */
export const customerDe: CustomerWords = {
  quote: {
    title: 'Kostenvoranschlag',
    date: 'Datum: {date}',
    validUntil: 'Gültig bis {date}',
    found: 'Unser Befund',
    likely: 'Wahrscheinlichste Ursache: {what}. Sie ist noch nicht nachgewiesen.',
    proven: 'Der Fehler ist gefunden: {what}.',
    options: 'Sie haben die Wahl',
    range: 'Der Gesamtbetrag liegt zwischen {low} und {high}. Mehr als {high} berechnen wir nicht ohne Rücksprache.',
    flaw: 'Was danach nicht mehr wie vorher funktioniert',
    panel: 'Ein Bildschirmpanel ist selten erhältlich und kostet fast so viel wie ein neues Gerät.',
    fee: 'Wird das Gerät nicht repariert, fällt nur die Prüfgebühr von {amount} an.',
    accept: 'Einverstanden: Möglichkeit, Datum, Unterschrift',
  },
  option: {
    repair: 'Reparatur',
    'with-known-flaw': 'Günstigere Reparatur mit bekanntem Mangel',
    workaround: 'Behelfslösung',
    'diagnose-only': 'Nur Fehlersuche',
    'hand-back': 'Rückgabe ohne Reparatur',
    donor: 'Reparatur mit Teilen aus einem Spendergerät',
  },
  line: {
    labour: 'Arbeitszeit',
    part: 'Ersatzteil',
    'diagnostic-fee': 'Prüfgebühr',
    consumables: 'Verbrauchsmaterial',
    other: 'Sonstiges',
    'agreed-at-most': 'Abzug auf den vereinbarten Betrag',
    warranty: 'Leistung aus unserer Gewährleistung',
    goodwill: 'Kulanz',
  },
  labour: 'Arbeitszeit, {n} min',
  sum: {
    net: 'Netto',
    tax: 'Steuer {percent} %',
    taxHeld: 'enthaltene Steuer {percent} %',
    total: 'Gesamtbetrag',
    upTo: 'Höchstens',
    paid: 'Bezahlt: {how}',
    due: 'Zu zahlen',
    nothing: 'Nichts zu zahlen.',
    rounding: 'Die Steuer wird je Steuersatz einmal kaufmännisch gerundet.',
  },
  invoice: { title: 'Rechnung', number: 'Rechnung {number}', date: 'Datum: {date}', for: 'Reparatur von {set}, Auftrag {n}' },
  report: {
    title: 'Reparaturbericht',
    dates: 'Angenommen am {from}, fertig am {to}',
    open: 'Angenommen am {from}, noch nicht fertig',
    reported: 'Gemeldeter Fehler',
    wrong: 'Ursache',
    unknown: 'Die Ursache wurde nicht nachgewiesen.',
    how: 'Wie sie gefunden wurde',
    steps: 'Prüfungen: {tests}, Messungen: {readings}.',
    done: 'Ausgeführte Arbeiten',
    nothingDone: 'Es wurde nichts repariert.',
    settings: 'Einstellungen korrigiert oder zurückgesetzt',
    part: 'Eingebautes Teil: {what}, Nummer {number}, {source}',
    firmware: 'Firmware geschrieben: {what}',
    ownKept: 'Einstellungen und Daten des Geräts sind erhalten.',
    seen: 'Wie geprüft wurde',
    starts: '{n} Starts, davon {cold} kalt',
    soak: '{hours} h ohne Unterbrechung gelaufen',
    remains: 'Was bleibt',
    modified: 'Umgebaut',
    modification: '{name}. Ohne Funktion: {lost}',
    oldPart: 'Altteil',
    warranty: 'Unsere Gewährleistung',
    warrantyText: '{days} Tage auf diese Reparatur, bis {date}. Sie umfasst die Arbeit und die oben genannten Teile.',
    noWarranty: 'Keine Gewährleistung auf diese Arbeit.',
    cautions: 'Bitte beachten',
    caution:
      'Öffnen Sie das Gerät nicht: Netzspannung, und Teile, die auch ohne Stecker geladen bleiben. Bei Geruch, Rauch oder Funken den Stecker ziehen und uns anrufen.',
    sign: 'Erhalten: Datum und Unterschrift',
  },
  outcome: {
    repaired: 'Repariert',
    'repaired-with-known-flaw': 'Repariert, ein bekannter Mangel bleibt',
    workaround: 'Mit Behelfslösung in Betrieb',
    'not-worth-it': 'Reparatur nicht wirtschaftlich',
    'handed-back': 'Unrepariert zurückgegeben',
  },
  how: {
    'both-ways': 'Der Fehler kam und ging mit dem Teil.',
    measured: 'Sie wurde gemessen.',
    'cured-by-repair': 'Die Reparatur hat den Fehler behoben.',
    'not-proven': 'Es ist die wahrscheinlichste Ursache; nachgewiesen ist sie nicht.',
  },
  repair: {
    replace: '{what} ersetzt',
    reseat: '{what} gereinigt oder ersetzt',
    'put-right': '{what}: Ursache beseitigt',
    drain: 'Gerät vollständig entladen und zurückgesetzt',
    part: 'Bauteil ersetzt: {what}',
    reflash: 'Firmware neu geschrieben: {what}',
    workaround: 'Behelfslösung: {what}',
  },
  source: {
    new: 'neu',
    refurbished: 'aufgearbeitet',
    pulled: 'gebraucht, geprüft',
    donor: 'gebraucht, aus einem Spendergerät',
    'own-stock': 'aus unserem Lager',
  },
  oldPart: {
    'shown-and-given': 'Sie haben das Altteil erhalten.',
    'shown-and-kept': 'Das Altteil wurde Ihnen gezeigt und blieb bei uns.',
    'returned-to-supplier': 'Das Altteil ging an den Lieferanten zurück.',
    disposed: 'Das Altteil wurde der Wiederverwertung zugeführt.',
  },
  payment: { cash: 'bar', card: 'Karte', transfer: 'Überweisung', open: 'offen', 'nothing-to-pay': 'nichts zu zahlen' },
  common: { job: 'Auftrag {n}', customer: 'Kunde', set: 'Gerät', size: '{n} Zoll', serial: 'Seriennummer {serial}' },
  message: {
    quote:
      '{shop}: Wir kennen den Fehler Ihres Geräts {set} (Auftrag {n}). Reparatur: {amount}. Bitte rufen Sie uns an oder antworten Sie.',
    ready: '{shop}: Ihr Gerät {set} (Auftrag {n}) ist fertig und kann abgeholt werden. Zu zahlen: {amount}.',
    'part-late': '{shop}: Ein Teil für Ihr Gerät {set} (Auftrag {n}) kommt später als erwartet. Wir melden uns, sobald es da ist.',
    collect: '{shop}: Ihr Gerät {set} (Auftrag {n}) ist seit {days} Tagen fertig. Bitte holen Sie es ab.',
    trial: '{shop}: Wie läuft Ihr Gerät {set} (Auftrag {n})? Die Probezeit endet am {date}. Bitte geben Sie uns Bescheid.',
  },
};
