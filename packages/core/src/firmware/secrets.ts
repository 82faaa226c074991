/** Hides what a text of a dump may tell of a customer: accounts, keys, addresses of hardware. */

const hidden = '•••';
const rules: readonly (readonly [RegExp, string])[] = [
  [/-----BEGIN [A-Z ]*PRIVATE KEY-----.*/g, hidden],
  [/((?:psk|pass(?:word|phrase)?|secret|token|api[_-]?key)["']?\s*[=:]\s*")[^"]*"/gi, `$1${hidden}"`],
  // "passwd: no such file" is a message, not a setting.
  [/((?:psk|password|passphrase|secret|token|api[_-]?key)\s*[=:]\s*)[^\s"]+/gi, `$1${hidden}`],
  [/[\w.+-]+@[\w-]+(?:[.][\w-]+)+/g, hidden],
  [/\b(?:[0-9a-f]{2}:){5}[0-9a-f]{2}\b/gi, hidden],
  [/\b[0-9a-f]{24,}\b/gi, hidden],
];

/** Mail addresses, keys and passwords behind their names, private keys, hardware addresses and long hexadecimal rows become `•••`. */
export const maskSecrets = (text: string): string => rules.reduce((left, [found, instead]) => left.replaceAll(found, instead), text);
