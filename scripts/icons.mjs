/** node scripts/icons.mjs: draws the icons of the installed application anew from src/app/icon.svg. */

import { readFileSync } from "node:fs";
import sharp from "sharp";

const icon = readFileSync("src/app/icon.svg", "utf8");
/** To the edge, with room around the drawing: a device cuts off up to a tenth at each side. */
const toTheEdge = icon
  .replace(/<svg[^>]*>/, '<svg xmlns="http://www.w3.org/2000/svg" viewBox="-4 -4 40 40">')
  .replace(/<rect[^>]*\/>/, '<rect x="-4" y="-4" width="40" height="40" fill="#19211e"/>');

for (const [drawing, size, file] of [
  [icon, 192, "public/icon-192.png"],
  [icon, 512, "public/icon-512.png"],
  [toTheEdge, 512, "public/icon-maskable.png"],
  [toTheEdge, 180, "src/app/apple-icon.png"],
])
  await sharp(Buffer.from(drawing), { density: 1200 }).resize(size, size).png({ palette: true }).toFile(file);
