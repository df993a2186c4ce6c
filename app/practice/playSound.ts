import type { Noise } from "@core/motor/mechanicalMode";
import { soundRecipe } from "@core/practice/soundRecipe";

const seconds = 3;
let playing: AudioContext | null = null;

/** A second of noise, played in a loop. */
function hissBuffer(context: AudioContext): AudioBuffer {
  const buffer = context.createBuffer(1, context.sampleRate, context.sampleRate);
  const samples = buffer.getChannelData(0);
  for (let i = 0; i < samples.length; i++) samples[i] = 2 * Math.random() - 1;
  return buffer;
}

/** Plays a blower's sound for three seconds. A browser without sound loses nothing, because the page also says it in words. */
export function playSound({ rpm, noise }: { readonly rpm: number; readonly noise: Noise }): void {
  if (typeof AudioContext === "undefined") return;
  void playing?.close();
  const context = new AudioContext();
  playing = context;
  const recipe = soundRecipe(rpm, noise);
  const out = context.createGain();
  out.gain.setValueAtTime(0, 0);
  out.gain.linearRampToValueAtTime(0.8, 0.15);
  out.gain.setValueAtTime(0.8, seconds - 0.3);
  out.gain.linearRampToValueAtTime(0, seconds);
  out.connect(context.destination);
  for (const { hertz, loud, wave, beatHertz } of recipe.tones) {
    const tone = new OscillatorNode(context, { frequency: hertz, type: wave });
    const level = new GainNode(context, { gain: loud });
    tone.connect(level).connect(out);
    if (beatHertz > 0) {
      const beat = new OscillatorNode(context, { frequency: beatHertz });
      beat.connect(new GainNode(context, { gain: loud / 2 })).connect(level.gain);
      beat.start();
    }
    tone.start();
  }
  if (recipe.hiss) {
    const air = new AudioBufferSourceNode(context, { buffer: hissBuffer(context), loop: true });
    air
      .connect(new BiquadFilterNode(context, { type: "bandpass", frequency: recipe.hiss.hertz, Q: 0.6 }))
      .connect(new GainNode(context, { gain: recipe.hiss.loud }))
      .connect(out);
    air.start();
  }
  if (recipe.blowsHertz) {
    const blows = hissBuffer(context);
    for (let at = 0.1; at < seconds; at += 1 / recipe.blowsHertz) {
      const blow = new AudioBufferSourceNode(context, { buffer: blows });
      blow
        .connect(new BiquadFilterNode(context, { type: "highpass", frequency: 1500 }))
        .connect(new GainNode(context, { gain: 0.5 }))
        .connect(out);
      blow.start(at, 0, 0.012);
    }
  }
  setTimeout(() => void context.close().catch(() => undefined), 1000 * seconds + 200);
}
