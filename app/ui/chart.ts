import type { Chart, ChartConfiguration, Plugin } from "chart.js";

/** A place in a picture that a figure comes from. */
export type Mark = { readonly label: string } & ({ readonly x: number } | { readonly y: number });

/** The theme's colours, as the browser computes them. */
export function themeColours() {
  const probe = document.createElement("span");
  // Without this, the system's forced colours would give every name the same colour, and paint a blank picture.
  probe.style.setProperty("forced-color-adjust", "none");
  document.body.append(probe);
  const colour = (name: string): string => {
    probe.style.color = `var(--${name})`;
    return getComputedStyle(probe).color;
  };
  const colours = {
    ink: colour("ink"),
    soft: colour("soft"),
    card: colour("card"),
    rule: colour("rule"),
    feed: colour("feed"),
    ground: colour("ground"),
    danger: colour("danger"),
    good: colour("good"),
    doubt: colour("doubt"),
  };
  probe.remove();
  return colours;
}
export type Colours = ReturnType<typeof themeColours>;

/** Paints the paper behind a picture, so that a saved one can be read, and the marks over it. */
function paper(colours: Colours, marks: () => readonly Mark[]): Plugin {
  return {
    id: "paper",
    beforeDraw: ({ ctx, width, height }) => {
      ctx.save();
      ctx.fillStyle = colours.card;
      ctx.fillRect(0, 0, width, height);
      ctx.restore();
    },
    afterDatasetsDraw: ({ ctx, chartArea, scales }) => {
      ctx.save();
      ctx.strokeStyle = colours.danger;
      ctx.fillStyle = colours.danger;
      ctx.setLineDash([6, 4]);
      ctx.lineWidth = 2;
      ctx.font = "600 13px 'Atkinson Hyperlegible Mono Variable', monospace";
      for (const mark of marks()) {
        ctx.beginPath();
        if ("x" in mark) {
          const x = scales.x?.getPixelForValue(mark.x) ?? 0;
          if (x < chartArea.left - 1 || x > chartArea.right + 1) continue;
          ctx.moveTo(x, chartArea.top);
          ctx.lineTo(x, chartArea.bottom);
          const wide = ctx.measureText(mark.label).width;
          ctx.fillText(mark.label, Math.min(x + 4, chartArea.right - wide), chartArea.top + 13);
        } else {
          const y = scales.y?.getPixelForValue(mark.y) ?? 0;
          ctx.moveTo(chartArea.left, y);
          ctx.lineTo(chartArea.right, y);
          ctx.fillText(mark.label, chartArea.left + 4, y - 4);
        }
        ctx.stroke();
      }
      ctx.restore();
    },
  };
}

/** Paints a picture on a canvas; Chart.js is loaded with the first one. */
export async function paintChart(
  canvas: HTMLCanvasElement,
  configure: (colours: Colours) => ChartConfiguration,
  marks: () => readonly Mark[],
): Promise<Chart> {
  const [{ Chart }, { default: zoom }] = await Promise.all([
    import("chart.js/auto"),
    import("chartjs-plugin-zoom"),
  ]);
  Chart.register(zoom);
  const colours = themeColours();
  const config = configure(colours);
  Chart.defaults.font.family = "'Atkinson Hyperlegible Next Variable', sans-serif";
  Chart.defaults.font.size = 14;
  Chart.defaults.color = colours.ink;
  Chart.defaults.borderColor = colours.rule;
  return new Chart(canvas, {
    ...config,
    options: { animation: false, responsive: true, maintainAspectRatio: false, ...config.options },
    plugins: [...(config.plugins ?? []), paper(colours, marks)],
  });
}
