let context: AudioContext | undefined;

/** A short tone: high for what was counted, low and longer for what was not. A browser without sound stays silent. */
export function sound(good: boolean): void {
  if (typeof AudioContext === 'undefined') return;
  context ??= new AudioContext();
  const [tone, volume] = [context.createOscillator(), context.createGain()];
  tone.frequency.value = good ? 1040 : 220;
  volume.gain.value = 0.08;
  tone.connect(volume).connect(context.destination);
  tone.start();
  tone.stop(context.currentTime + (good ? 0.07 : 0.25));
}
