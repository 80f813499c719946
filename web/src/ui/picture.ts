// A drawing as a file: the SVG layers of a frame laid over one another, with the styles that they have on the screen.
const STYLES = [
  "fill",
  "fill-opacity",
  "stroke",
  "stroke-width",
  "stroke-dasharray",
  "stroke-linejoin",
  "opacity",
  "font-family",
  "font-size",
  "font-weight",
  "text-anchor",
  "paint-order",
  "visibility",
] as const;
const NAMESPACE = "http://www.w3.org/2000/svg";
const FINER = 2;

/** The nearest frame around a part of the page whose drawings make one picture. */
export function frameOf(node: Element): HTMLElement | null {
  return node.closest<HTMLElement>("[data-picture]");
}

function styled(original: SVGElement): SVGElement {
  const copy = original.cloneNode(true) as SVGElement;
  const from = [original, ...original.querySelectorAll<SVGElement>("*")];
  const to = [copy, ...copy.querySelectorAll<SVGElement>("*")];
  from.forEach((node, i) => {
    const computed = getComputedStyle(node);
    to[i]!.setAttribute("style", STYLES.map((name) => `${name}:${computed.getPropertyValue(name).replaceAll('"', "'")}`).join(";"));
    for (const name of ["class", "fill", "stroke"]) to[i]!.removeAttribute(name);
  });
  return copy;
}

/** The faces in which a drawing's words are set, in the picture itself: elsewhere they would be others, and wider. */
async function faces(): Promise<string> {
  const rules = [...document.styleSheets].flatMap((sheet) => [...sheet.cssRules]);
  const found = rules.filter((rule) => rule instanceof CSSFontFaceRule && rule.style.getPropertyValue("font-family").includes("Plex"));
  const texts = found.map(async (rule) => {
    const url = /url\("?([^")]+\.woff2)"?\)/.exec(rule.cssText)?.[1];
    if (url === undefined) return "";
    const bytes = new Uint8Array(await (await fetch(new URL(url, document.baseURI))).arrayBuffer());
    const data = btoa(Array.from(bytes, (byte) => String.fromCharCode(byte)).join(""));
    const { style } = rule as CSSFontFaceRule;
    const [family, weight] = [style.getPropertyValue("font-family"), style.getPropertyValue("font-weight")];
    return `@font-face{font-family:${family};font-weight:${weight};src:url(data:font/woff2;base64,${data})}`;
  });
  return (await Promise.all(texts)).join("");
}

/** Drawings of a frame as one SVG text, on the paper's colour. */
async function svgOf(frame: HTMLElement, title: string): Promise<string> {
  const box = frame.getBoundingClientRect();
  const whole = document.createElementNS(NAMESPACE, "svg");
  const [width, height] = [Math.ceil(box.width), Math.ceil(box.height)];
  for (const [name, value] of Object.entries({ xmlns: NAMESPACE, width, height, viewBox: `0 0 ${width} ${height}` }))
    whole.setAttribute(name, String(value));
  const name = document.createElementNS(NAMESPACE, "title");
  name.textContent = title;
  const type = document.createElementNS(NAMESPACE, "style");
  type.textContent = await faces();
  const paper = document.createElementNS(NAMESPACE, "rect");
  for (const [key, value] of Object.entries({ width, height, fill: getComputedStyle(document.body).backgroundColor }))
    paper.setAttribute(key, String(value));
  whole.append(name, type, paper);
  for (const drawing of frame.querySelectorAll<SVGSVGElement>("svg:not(button svg):not([data-passing])")) {
    if (drawing.parentElement?.closest("svg") !== null) continue;
    const at = drawing.getBoundingClientRect();
    const layer = styled(drawing);
    layer.setAttribute("x", String(at.left - box.left));
    layer.setAttribute("y", String(at.top - box.top));
    layer.setAttribute("width", String(at.width));
    layer.setAttribute("height", String(at.height));
    whole.append(layer);
  }
  return new XMLSerializer().serializeToString(whole);
}

function save(url: string, name: string): void {
  const link = document.createElement("a");
  link.href = url;
  link.download = name;
  link.click();
}

function fileName(title: string, ending: string): string {
  return `${title.toLowerCase().replaceAll(/[^a-z0-9]+/g, "-")}.${ending}`;
}

export async function saveSvg(frame: HTMLElement, title: string): Promise<void> {
  const url = URL.createObjectURL(new Blob([await svgOf(frame, title)], { type: "image/svg+xml" }));
  save(url, fileName(title, "svg"));
  setTimeout(() => {
    URL.revokeObjectURL(url);
  }, 1000);
}

export async function savePng(frame: HTMLElement, title: string): Promise<void> {
  const image = new Image();
  image.onload = () => {
    const canvas = document.createElement("canvas");
    canvas.width = image.width * FINER;
    canvas.height = image.height * FINER;
    canvas.getContext("2d")!.drawImage(image, 0, 0, canvas.width, canvas.height);
    save(canvas.toDataURL("image/png"), fileName(title, "png"));
  };
  image.src = `data:image/svg+xml;charset=utf-8,${encodeURIComponent(await svgOf(frame, title))}`;
}
