/** For busy hands: large from two metres, said aloud, spoken in. Kept in this browser; all off until somebody wants it. */
import { ref, watch, type Ref } from 'vue';

const kept = (name: string): Ref<boolean> => {
  const value = ref(localStorage.getItem(`veglia.${name}`) === 'yes');
  watch(value, (now) => localStorage.setItem(`veglia.${name}`, now ? 'yes' : 'no'));
  return value;
};
export const far = kept('far');
export const aloud = kept('aloud');
export const dictated = kept('dictated');

export const canSpeak = 'speechSynthesis' in globalThis;
export function say(text: string): void {
  if (!canSpeak) return;
  speechSynthesis.cancel();
  speechSynthesis.speak(new SpeechSynthesisUtterance(text));
}

interface Recognition {
  lang: string;
  interimResults: boolean;
  onresult: ((event: { results: ArrayLike<ArrayLike<{ transcript: string }>> }) => void) | null;
  onend: (() => void) | null;
  start(): void;
  abort(): void;
}
const recognitionOf = (): (new () => Recognition) | undefined => {
  const scope = globalThis as { SpeechRecognition?: new () => Recognition; webkitSpeechRecognition?: new () => Recognition };
  return scope.SpeechRecognition ?? scope.webkitSpeechRecognition;
};
export const canListen = recognitionOf() !== undefined;

/** Listens once; undefined where nothing was understood. The browser does the listening, where it can. */
export function listenOnce(): Promise<string | undefined> {
  const Made = recognitionOf();
  if (!Made) return Promise.resolve(undefined);
  return new Promise((resolve) => {
    const heard = new Made();
    heard.lang = 'en';
    heard.interimResults = false;
    let text: string | undefined;
    heard.onresult = ({ results }) => (text = results[0]?.[0]?.transcript);
    heard.onend = () => resolve(text);
    heard.start();
  });
}
