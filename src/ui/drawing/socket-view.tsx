/** A tube socket from below, as it is probed: the pin to probe filled, its neighbours with what lies on them. */

import type { Socket } from "@/core/anatomy/sockets";
import type { PinWords } from "@/core/walk/socket-words";

interface SocketViewProps {
  socket: Socket;
  /** The pin to probe. */
  pin: number;
  words: ReadonlyMap<number, PinWords>;
  className?: string;
}

/** The drawing's own units: pins lie on a circle of this radius, words around it. */
const RING = 66;
const WORDS = 96;
const [WIDTH, HEIGHT] = [430, 318];

/** Clockwise from the key at the bottom, as seen from below. */
const at = (angle: number, radius: number): [x: number, y: number] => {
  const a = (angle * Math.PI) / 180;
  return [-radius * Math.sin(a), radius * Math.cos(a)];
};

export function SocketView({ socket, pin, words, className }: SocketViewProps) {
  const target = words.get(pin);
  const title = `Socket of ${socket.name}, ${socket.type}, from below: probe pin ${pin}${target ? `, ${target.what}` : ""}`;
  return (
    <figure className={className}>
      <svg viewBox={`${-WIDTH / 2} ${-HEIGHT / 2} ${WIDTH} ${HEIGHT}`} role="img" aria-label={title} className="w-full">
        <circle r={RING + 22} className="fill-base-200 stroke-base-content" strokeWidth={2} />
        <Key base={socket.base} />
        {socket.pins.map((p) => {
          const [x, y] = at(p.angle, RING);
          const here = p.pin === pin;
          return (
            <g key={p.pin} data-pin={p.pin} data-probe={here || undefined}>
              <circle
                cx={x}
                cy={y}
                r={here ? 22 : 16}
                strokeWidth={2}
                className={
                  here
                    ? "fill-primary stroke-base-content"
                    : words.has(p.pin)
                      ? "fill-base-100 stroke-base-content"
                      : "fill-base-100 stroke-base-300"
                }
              />
              <text
                x={x}
                y={y}
                dy="0.36em"
                textAnchor="middle"
                fontSize={here ? 29 : 21}
                className={here ? "fill-primary-content font-bold" : "fill-current"}
              >
                {p.pin}
              </text>
            </g>
          );
        })}
        {socket.pins.map((p) => {
          const says = words.get(p.pin);
          return says && <Label key={p.pin} angle={p.angle} says={says} here={p.pin === pin} />;
        })}
      </svg>
      <figcaption className="soft text-center text-sm">
        {socket.name} {socket.type}, seen from below
      </figcaption>
    </figure>
  );
}

/** Where counting begins: the gap in the ring of a glass base, the key of an octal one. */
function Key({ base }: { base: Socket["base"] }) {
  if (base === "octal")
    return (
      <>
        <circle r={22} className="fill-base-300 stroke-base-content" strokeWidth={2} />
        <rect x={-5} y={18} width={10} height={10} className="fill-base-content" />
      </>
    );
  return <path d={`M -7 ${RING + 22} L 0 ${RING + 8} L 7 ${RING + 22} Z`} className="fill-base-content" />;
}

function Label({ angle, says, here }: { angle: number; says: PinWords; here: boolean }) {
  const [x, y] = at(angle, WORDS);
  const anchor = x > 12 ? "start" : x < -12 ? "end" : "middle";
  // Above the ring the lines grow upwards, below it downwards.
  const up = y < -60 ? -24 : y > 60 ? 16 : -4;
  return (
    <text x={x} y={y + up} textAnchor={anchor} fontSize={23} className={here ? "fill-current font-bold" : "soft fill-current"}>
      <tspan x={x}>{says.what}</tspan>
      {says.volts && (
        <tspan x={x} dy="1em" className="fill-base-content">
          {says.volts}
          {says.expected ? "?" : ""}
        </tspan>
      )}
    </text>
  );
}
