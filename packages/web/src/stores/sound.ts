/** Three short notes, made on the spot: no file, and none where the browser lets no page sound before a touch. */
let context: AudioContext | undefined;

const notes = [880, 660, 880];
const noteS = 0.18;
const gapS = 0.1;

/** How often it has rung, for those who can't hear: tests, and screens that show it. */
export let rings = 0;

export function ring(): void {
  rings += 1;
  document.documentElement.dataset.rings = String(rings);
  context ??= new AudioContext();
  void context.resume();
  notes.forEach((hertz, index) => {
    if (!context) return;
    const tone = context.createOscillator();
    const loudness = context.createGain();
    const start = context.currentTime + index * (noteS + gapS);
    tone.frequency.value = hertz;
    loudness.gain.setValueAtTime(0.25, start);
    loudness.gain.exponentialRampToValueAtTime(0.001, start + noteS);
    tone.connect(loudness).connect(context.destination);
    tone.start(start);
    tone.stop(start + noteS);
  });
}
