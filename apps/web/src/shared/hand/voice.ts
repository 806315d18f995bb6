/** Speech, and a short sound with a vibration: for full hands and eyes elsewhere. */

export const canSpeak = (): boolean => 'speechSynthesis' in globalThis;

/** Speaks a text, stopping the one before. */
export function speak(text: string): void {
  if (!canSpeak()) return;
  speechSynthesis.cancel();
  speechSynthesis.speak(new SpeechSynthesisUtterance(text));
}

export function hush(): void {
  if (canSpeak()) speechSynthesis.cancel();
}

const TONE = { hertz: 880, seconds: 0.35, loudness: 0.2 };
const BUZZ = [200, 100, 200];

/** A short key click. */
export function click(): void {
  if (!('AudioContext' in globalThis)) return;
  const context = new AudioContext();
  const note = context.createOscillator();
  const loudness = context.createGain();
  loudness.gain.value = TONE.loudness / 4;
  note.frequency.value = TONE.hertz * 2;
  note.connect(loudness).connect(context.destination);
  note.start();
  note.stop(context.currentTime + 0.03);
  note.onended = () => void context.close();
}

/** Two notes and a vibration, as far as the device supports them. */
export function chime(): void {
  // iPhones and desktops do not vibrate.
  if ('vibrate' in navigator) navigator.vibrate(BUZZ);
  if (!('AudioContext' in globalThis)) return;
  const context = new AudioContext();
  const loudness = context.createGain();
  loudness.gain.value = TONE.loudness;
  loudness.connect(context.destination);
  for (const [i, pitch] of [TONE.hertz, TONE.hertz * 1.5].entries()) {
    const note = context.createOscillator();
    note.frequency.value = pitch;
    note.connect(loudness);
    note.start(context.currentTime + i * TONE.seconds);
    note.stop(context.currentTime + (i + 1) * TONE.seconds);
    if (i === 1) note.onended = () => void context.close();
  }
}
