/** An alarm that is heard and felt: three tones and a buzz. A tap permits it, as browsers want. */

const TONES_HZ = [880, 660, 880] as const;
const TONE_S = 0.22;
const LOUD = 0.4;
const BUZZ_MS = [400, 200, 400];

let sound: AudioContext | null = null;

/** Called from a tap: from then on the page may make a sound. */
export function permitAlarm(): void {
  try {
    sound ??= new AudioContext();
    void sound.resume();
  } catch {
    // Without a sound it is still felt and seen.
  }
}

/** Rings once. */
export function ring(): void {
  if ('vibrate' in navigator) navigator.vibrate(BUZZ_MS);
  if (sound?.state !== 'running') return;
  for (const [at, hz] of TONES_HZ.entries()) {
    const [tone, level] = [sound.createOscillator(), sound.createGain()];
    const begin = sound.currentTime + at * TONE_S * 1.2;
    tone.frequency.value = hz;
    level.gain.setValueAtTime(LOUD, begin);
    level.gain.exponentialRampToValueAtTime(0.01, begin + TONE_S);
    tone.connect(level).connect(sound.destination);
    tone.start(begin);
    tone.stop(begin + TONE_S);
  }
}
