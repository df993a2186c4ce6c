import type { MotorSound, SoundDoubt } from "@core/sound/motorSound";

/** What some sound recordings cannot show, in one sentence. */
function soundDoubtText(doubt: SoundDoubt): string {
  if (doubt.code === "one-speed")
    return "only one speed was recorded; record a second one to find out whether the noise follows the speed";
  const recording = `recording ${doubt.recording + 1}`;
  switch (doubt.code) {
    case "sampled-too-slowly":
      return `${recording}: sampled too slowly, ${doubt.rateHz} Hz; at least ${doubt.neededHz} Hz are needed`;
    case "too-short":
      return `${recording}: too short; at least ${doubt.neededSeconds} s are needed`;
    case "silent":
      return `${recording}: silent`;
    case "speeds-contradict-tones":
      return `${recording}: the speeds entered differ by a factor of ${doubt.given.toFixed(2)}, the tones by ${doubt.heard.toFixed(2)}; check the rpm`;
    case "speed-not-known":
      return `${recording}: no tone shows its speed compared with the first recording; enter the rpm`;
  }
}

/** A motor's sound with its limits in words, as it is stored and shown. */
export const soundWords = ({ cannot, ...sound }: MotorSound) => ({
  ...sound,
  cannot: cannot.map(soundDoubtText),
});
