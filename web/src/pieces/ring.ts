/** Three short tones, as a kitchen clock has them; nothing where the device makes no sound. */
export function ring(): void {
  if (typeof AudioContext === 'undefined') return
  const context = new AudioContext()
  for (const at of [0, 0.35, 0.7]) {
    const tone = context.createOscillator()
    const volume = context.createGain()
    tone.frequency.value = 880
    volume.gain.setValueAtTime(0.25, context.currentTime + at)
    volume.gain.exponentialRampToValueAtTime(0.001, context.currentTime + at + 0.25)
    tone.connect(volume).connect(context.destination)
    tone.start(context.currentTime + at)
    tone.stop(context.currentTime + at + 0.25)
  }
  setTimeout(() => void context.close(), 1500)
}
