// One short tone at a time, when sound is wanted.
import { by } from "./dom.js";

let voice = null;

export function beep(pitch, length) {
  const sound = by("sound");
  if (sound && !sound.checked) { return; }
  // A page that was only reloaded may not sound until it is touched.
  if (navigator.userActivation && !navigator.userActivation.hasBeenActive) { return; }
  const Voice = window.AudioContext;
  if (!Voice) { return; }
  voice = voice || new Voice();
  const tone = voice.createOscillator();
  const loud = voice.createGain();
  tone.frequency.value = pitch;
  loud.gain.setValueAtTime(0.25, voice.currentTime);
  loud.gain.exponentialRampToValueAtTime(0.001, voice.currentTime + length);
  tone.connect(loud).connect(voice.destination);
  tone.start();
  tone.stop(voice.currentTime + length);
}
