/** Colours and fonts of the page's design tokens, computed by the browser. */
type Resolve = (css: string) => string;

const painted = /\b(fill|stroke)="((?:var|color-mix)\([^"]*\))"/g;
const faces = /\bfont-family="(var\([^"]*\))"/g;

/**
 * A drawing's markup as a file of its own: design tokens become plain colours and fonts, classes and tap areas are
 * removed, and the paper is painted behind it.
 * @param markup the drawing in the page
 * @param box its view box, in the drawing's units
 */
export function standAlone(
  markup: string,
  box: { readonly x: number; readonly y: number; readonly width: number; readonly height: number },
  colour: Resolve,
  font: Resolve,
  title: string,
): string {
  const paper = `<rect x="${box.x}" y="${box.y}" width="${box.width}" height="${box.height}" fill="${colour("var(--card)")}"/>`;
  return markup
    .replace(/<rect data-point="[^>]*(?:\/>|><\/rect>)/g, "")
    .replace(/\s(?:class|style|role|tabindex|data-[a-z-]+|aria-[a-z-]+)="[^"]*"/g, "")
    .replace(painted, (_, name: string, css: string) => `${name}="${colour(unescaped(css))}"`)
    .replace(faces, (_, css: string) => `font-family="${font(css).replaceAll('"', "'")}"`)
    .replace(
      /^<svg([^>]*)>/,
      // With a size given twice, a strict reader refuses the whole drawing.
      (_, attributes: string) =>
        `<svg${named(attributes.replace(/\s(?:width|height)="[^"]*"/g, ""))} width="${box.width}" height="${box.height}" font-family="${font("var(--font-sans)").replaceAll('"', "'")}"><title>${escaped(title)}</title>${paper}`,
    );
}

const named = (attributes: string): string =>
  attributes.includes("xmlns=") ? attributes : ` xmlns="http://www.w3.org/2000/svg"${attributes}`;
const escaped = (text: string): string =>
  text.replaceAll("&", "&amp;").replaceAll("<", "&lt;").replaceAll(">", "&gt;");
const unescaped = (text: string): string => text.replaceAll("&amp;", "&");

/** Reads a colour as the screen shows it, in whatever colour space it was written. */
function asShown(css: string, probe: HTMLElement, canvas: CanvasRenderingContext2D): string {
  probe.style.color = "";
  probe.style.color = css;
  canvas.clearRect(0, 0, 1, 1);
  canvas.fillStyle = getComputedStyle(probe).color;
  canvas.fillRect(0, 0, 1, 1);
  const [red = 0, green = 0, blue = 0] = canvas.getImageData(0, 0, 1, 1).data;
  return `#${[red, green, blue].map((part) => part.toString(16).padStart(2, "0")).join("")}`;
}

/** Saves the drawing with its present state as an SVG file. */
export function saveSvg(drawing: SVGSVGElement, name: string): void {
  const probe = document.createElement("span");
  document.body.append(probe);
  const canvas = document.createElement("canvas").getContext("2d", { willReadFrequently: true });
  if (!canvas) return;
  const known = new Map<string, string>();
  const colour: Resolve = (css) => {
    const own = known.get(css) ?? asShown(css, probe, canvas);
    known.set(css, own);
    return own;
  };
  const font: Resolve = (css) => {
    probe.style.fontFamily = css;
    return getComputedStyle(probe).fontFamily;
  };
  const { x, y, width, height } = drawing.viewBox.baseVal;
  const markup = new XMLSerializer().serializeToString(drawing);
  const title = drawing.getAttribute("aria-label") ?? name;
  const text = standAlone(markup, { x, y, width, height }, colour, font, title);
  probe.remove();
  const link = document.createElement("a");
  link.href = URL.createObjectURL(new Blob([text], { type: "image/svg+xml" }));
  link.download = `${name}.svg`;
  link.click();
  setTimeout(() => URL.revokeObjectURL(link.href), 10_000);
}
