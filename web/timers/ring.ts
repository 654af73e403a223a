/** Two short tones, made here: nothing is fetched. Silent where the browser has no sound. */
export function ring(): void {
  if (typeof AudioContext === 'undefined') return;
  const audio = new AudioContext();
  for (const [at, hertz] of [
    [0, 660],
    [0.28, 880],
  ] as const) {
    const tone = audio.createOscillator();
    const loud = audio.createGain();
    tone.frequency.value = hertz;
    loud.gain.setValueAtTime(0.0001, audio.currentTime + at);
    loud.gain.exponentialRampToValueAtTime(0.25, audio.currentTime + at + 0.02);
    loud.gain.exponentialRampToValueAtTime(0.0001, audio.currentTime + at + 0.24);
    tone.connect(loud).connect(audio.destination);
    tone.start(audio.currentTime + at);
    tone.stop(audio.currentTime + at + 0.25);
  }
  setTimeout(() => void audio.close(), 800);
}
