import type { SoundRecord } from "@core/recording/storedRecording";
import type { ToneSource } from "@core/sound/motorSound";
import { soundNoises } from "@core/sound/soundNoise";
import { Picture, zoomX } from "../../ui/Picture";
import { EnterEvidence } from "../EnterEvidence";
import { hertz, percentOf } from "../figureText";
import type { MotorPageData } from "../motorPageView.server";
import type { RecordingLine } from "../motorView.server";
import { SpectrogramPicture } from "../SpectrogramPicture";

const sourceWords: Readonly<Record<ToneSource, string>> = {
  balance: "once per turn: wheel out of balance",
  "low-order": "a few times per turn: wheel or bearing",
  bearing: "not a whole number per turn: most likely a bearing",
  blades: "once per blade",
  commutation: "commutator",
  fixed: "does not follow the speed: duct or whistle",
  unknown: "order not known",
};

const noiseAdvice = {
  quiet: "Only the sound of air.",
  squeal:
    "A dry bearing squeals in step with the speed. Oil is a temporary repair; plan to replace the motor.",
  rumble: "The wheel is out of balance or a bearing is worn. Inspect the wheel before you buy a motor.",
  tick: "Something is in the wheel, or the wheel rubs. Look for a leaf, a twig or a screw.",
  whistle:
    "It does not follow the speed. Check the duct, the gasket and the vent hole. If a finger over the motor's vent hole stops the noise, the motor will fail soon.",
} as const;

export type SoundLine = RecordingLine & { readonly record: SoundRecord };

export function Heard({ page, sound }: { page: MotorPageData; sound: SoundLine }) {
  const { figures, picture, setup, source } = sound.record;
  const ordered = [...soundNoises].sort((a, b) => (figures.odds[b] ?? 0) - (figures.odds[a] ?? 0));
  const follows = figures.followsSpeed === null ? {} : { followsSpeed: figures.followsSpeed };
  return (
    <div className="grid items-start gap-4 lg:grid-cols-[minmax(0,2fr)_minmax(0,3fr)]">
      <div className="grid gap-3">
        <HeardNoise figures={figures} ordered={ordered} />
        <EnterEvidence
          token={`listen-${sound.id}`}
          source={source}
          reading={{ test: "listen", ...setup, seen: figures.likeliest, ...follows }}
        >
          Add to the evidence: {figures.likeliest}
        </EnterEvidence>
        <Tones figures={figures} />
      </div>
      <div className="grid min-w-0 gap-3">
        <SpectraPicture figures={figures} page={page} sound={sound} picture={picture} />
        {picture.map(({ name, setting, spectrogram }) => (
          <SpectrogramPicture
            key={`${name} ${setting}`}
            title={`Speed ${setting}, ${name}`}
            picture={spectrogram}
          />
        ))}
      </div>
    </div>
  );
}

interface HeardNoiseProps {
  readonly figures: SoundRecord["figures"];
  readonly ordered: readonly (typeof soundNoises)[number][];
}

/** What the noise most likely is. */
function HeardNoise({ figures, ordered }: HeardNoiseProps) {
  return (
    <section className="tag-card" aria-labelledby="heard-noise">
      <div className="tag-face text-base">
        <h2 id="heard-noise" className="pr-6 text-xl font-bold capitalize">
          {figures.likeliest}
        </h2>
        <p>{noiseAdvice[figures.likeliest]}</p>
        <p>
          {figures.followsSpeed === null
            ? ""
            : figures.followsSpeed
              ? "It follows the speed."
              : "It does not follow the speed."}
        </p>
        <ul className="mt-2 grid gap-1">
          {ordered.map((noise) => (
            <li key={noise}>
              <span className="flex justify-between">
                {noise} <span className="figures">{percentOf(figures.odds[noise] ?? 0)}</span>
              </span>
              <span
                className="doubt-bar block"
                style={{ width: `${Math.max(0.5, 100 * (figures.odds[noise] ?? 0))}%` }}
              />
            </li>
          ))}
        </ul>
        {figures.cannot.length > 0 && (
          <ul className="mt-2 list-disc pl-5 text-soft">
            {figures.cannot.map((reason) => (
              <li key={reason}>{reason}</li>
            ))}
          </ul>
        )}
      </div>
    </section>
  );
}

interface TonesProps {
  readonly figures: SoundRecord["figures"];
}

/** The strongest tones and where they come from. */
function Tones({ figures }: TonesProps) {
  return (
    <section aria-labelledby="tones" className="sheet-card p-3 text-base">
      <h2 id="tones" className="font-bold">
        Tones
      </h2>
      {figures.tones.length === 0 && <p className="text-soft">No tone stands out.</p>}
      <ul>
        {figures.tones.map((tone) => (
          <li key={tone.hz.join()} className="border-t border-rule py-1">
            <span className="figures">
              {tone.hz.map((hz) => (hz === null ? "–" : hertz(hz))).join(" · ")}
            </span>
            {tone.order !== null && <span className="figures"> · order {tone.order.toFixed(2)}</span>}
            <span className="text-soft"> · {Math.round(tone.over)} dB above the rest</span>
            <br />
            {sourceWords[tone.source]}
            {tone.follows === true ? ", follows the speed" : ""}
          </li>
        ))}
      </ul>
    </section>
  );
}

interface SpectraPictureProps {
  readonly figures: SoundRecord["figures"];
  readonly page: MotorPageData;
  readonly sound: SoundLine;
  readonly picture: SoundRecord["picture"];
}

/** Both spectra, with and without the motor's own lines. */
function SpectraPicture({ figures, page, sound, picture }: SpectraPictureProps) {
  return (
    <Picture
      title="Spectra"
      words={
        figures.tones
          .map(({ hz }) => `tone at ${hz.map((own) => (own === null ? "none" : hertz(own))).join(" and ")}`)
          .join("; ") || "no tone stands out"
      }
      file={`job-${page.id}-sound`}
      of={sound.id}
      zooms
      configure={(colours) => ({
        type: "line",
        data: {
          datasets: picture.map(({ setting, spectrum: { topHz, decibels } }, i) => ({
            label: `speed ${setting}`,
            data: decibels.map((y, at) => ({ x: ((at + 0.5) * topHz) / decibels.length, y })),
            borderColor: [colours.ink, colours.feed, colours.ground][i] ?? colours.ink,
            borderDash: [[], [6, 3], [2, 3]][i] ?? [],
            borderWidth: 1.5,
            pointRadius: 0,
            parsing: false as const,
          })),
        },
        options: {
          scales: {
            x: { type: "linear", title: { display: true, text: "Hz" } },
            y: { title: { display: true, text: "dB below the strongest" } },
          },
          plugins: { legend: { position: "bottom" }, zoom: zoomX },
        },
      })}
    />
  );
}
