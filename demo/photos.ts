/** Photos of the demo shop: drawings made here, since nothing in it is real. */

import sharp from "sharp";

const W = 960;
const H = 640;

/** Steps like a random walk, the same at every run. */
function noise(seed: number): () => number {
  let state = seed >>> 0;
  return () => {
    state = (state * 1664525 + 1013904223) >>> 0;
    return state / 2 ** 32;
  };
}

async function render(body: string, ground: string): Promise<Buffer> {
  const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="${W}" height="${H}"><rect width="${W}" height="${H}" fill="${ground}"/>${body}</svg>`;
  return sharp(Buffer.from(svg)).jpeg({ quality: 80 }).toBuffer();
}

const socket = (x: number, y: number, r: number, pins: number) =>
  `<circle cx="${x}" cy="${y}" r="${r}" fill="#d8cfb8" stroke="#5b5344" stroke-width="4"/>${Array.from({ length: pins }, (_, i) => {
    const a = (2 * Math.PI * (i + 0.5)) / pins;
    return `<circle cx="${x + Math.cos(a) * r * 0.66}" cy="${y + Math.sin(a) * r * 0.66}" r="5" fill="#7d6a3a"/>`;
  }).join("")}`;

const resistor = (x: number, y: number, angle: number, bands: string[], body = "#b08d5b") =>
  `<g transform="translate(${x} ${y}) rotate(${angle})"><line x1="-60" x2="60" y1="0" y2="0" stroke="#9a9a92" stroke-width="4"/><rect x="-32" y="-11" width="64" height="22" rx="8" fill="${body}"/>${bands.map((b, i) => `<rect x="${-22 + i * 13}" y="-11" width="7" height="22" fill="${b}"/>`).join("")}</g>`;

const paperCapacitor = (x: number, y: number, angle: number, leaking: boolean) =>
  `<g transform="translate(${x} ${y}) rotate(${angle})"><line x1="-90" x2="90" y1="0" y2="0" stroke="#9a9a92" stroke-width="4"/><rect x="-56" y="-20" width="112" height="40" rx="6" fill="#c9a24a"/><rect x="-56" y="-20" width="12" height="40" fill="#8d6f2e"/>${leaking ? '<path d="M44 18 q14 22 4 38 q-16 4 -20 -12 z" fill="#a9873a" opacity="0.9"/>' : ""}</g>`;

/** The sockets of the underside, by the tube that stands in them. */
const SOCKETS: Record<"V1" | "V2" | "V3", [x: number, y: number, r: number, pins: number]> = {
  V1: [220, 200, 62, 9],
  V2: [480, 190, 62, 9],
  V3: [740, 210, 74, 8],
};

/** Where a pin of the underside is, as parts of the picture's width and height. */
export function pinOnUnderside(tube: keyof typeof SOCKETS, pin: number): { x: number; y: number } {
  const [x, y, r, pins] = SOCKETS[tube];
  const a = (2 * Math.PI * (pin - 0.5)) / pins;
  return { x: (x + Math.cos(a) * r * 0.66) / W, y: (y + Math.sin(a) * r * 0.66) / H };
}

/** The underside of a chassis: sockets, resistors, capacitors, wires. */
export function underside(seed: number, leaking = false): Promise<Buffer> {
  const random = noise(seed);
  const wires = Array.from({ length: 14 }, () => {
    const colours = ["#7c2f2a", "#2f5d3a", "#2c4a6b", "#b59a2c", "#d8d2c0", "#3a352d"];
    const [x, y] = [random() * W, random() * H];
    return `<path d="M${x} ${y} C${x + 120 * random()} ${y + 160 * (random() - 0.5)} ${random() * W} ${random() * H} ${random() * W} ${random() * H}" fill="none" stroke="${colours[Math.floor(random() * colours.length)]}" stroke-width="6" opacity="0.9"/>`;
  }).join("");
  const parts = Array.from({ length: 10 }, () =>
    resistor(120 + random() * 720, 130 + random() * 380, random() * 180, ["#7a3b1d", "#111", "#c8a020", "#c9c2b0"]),
  ).join("");
  return render(
    `${wires}${Object.values(SOCKETS)
      .map((s) => socket(...s))
      .join("")}${parts}${paperCapacitor(360, 400, 18, false)}${paperCapacitor(600, 430, -24, leaking)}`,
    "#8f9691",
  );
}

/** An electrolytic can whose seal has lifted. */
export function can(bulging: boolean): Promise<Buffer> {
  return render(
    `<rect x="330" y="150" width="300" height="400" rx="18" fill="#b9bdbb"/><rect x="330" y="150" width="46" height="400" fill="#d6d9d7" opacity="0.7"/><ellipse cx="480" cy="150" rx="150" ry="${bulging ? 62 : 30}" fill="#3a332c"/>${bulging ? '<path d="M560 120 q40 30 60 120 q10 60 -10 120" fill="none" stroke="#7b5b20" stroke-width="16" opacity="0.8"/>' : ""}<rect x="300" y="548" width="360" height="26" fill="#8a8f8c"/>`,
    "#6d7570",
  );
}

/** The front of a cabinet as it came in. */
export function cabinet(colour: string, dented: boolean): Promise<Buffer> {
  const knobs = Array.from(
    { length: 5 },
    (_, i) =>
      `<circle cx="${260 + i * 110}" cy="150" r="30" fill="#1d1a16"/><line x1="${260 + i * 110}" y1="150" x2="${260 + i * 110 + 18 * Math.cos(i * 1.3 - 2)}" y2="${150 + 18 * Math.sin(i * 1.3 - 2)}" stroke="#e8dfc8" stroke-width="5"/>`,
  ).join("");
  const weave = Array.from(
    { length: 26 },
    (_, i) => `<line x1="${150 + i * 26}" y1="230" x2="${150 + i * 26}" y2="540" stroke="#8a7850" stroke-width="3"/>`,
  ).join("");
  return render(
    `<rect x="110" y="80" width="740" height="500" rx="22" fill="${colour}"/><rect x="140" y="220" width="680" height="330" rx="10" fill="#b7a06a"/>${weave}${knobs}${dented ? '<path d="M110 470 l44 30 l-10 80 l-34 0 z" fill="#d2c3a0"/>' : ""}`,
    "#4d4a44",
  );
}
