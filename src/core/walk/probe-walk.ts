/** A walk with the probe, point by point: what is next after a reading, a skip, a step back, or a point that cannot be reached. */

export interface ProbeWalk {
  /** Names of the points in their order. */
  order: readonly string[];
  /** The point to probe now; undefined at the end. */
  here?: string;
  taken: readonly string[];
  /** Left for later: they come again at the end, once. */
  skipped: readonly string[];
  unreachable: readonly string[];
  /** Where the probe was before, the newest last: the way back. */
  trail: readonly string[];
}

/** @param taken points that have their reading already, as after an interruption. */
export function startProbeWalk(order: readonly string[], taken: readonly string[] = []): ProbeWalk {
  return onward({ order, taken: taken.filter((p) => order.includes(p)), skipped: [], unreachable: [], trail: [] });
}

/** The reading here was taken. */
export function takeHere(walk: ProbeWalk): ProbeWalk {
  const { here } = walk;
  if (here === undefined) return walk;
  return onward({
    ...walk,
    taken: [...without(walk.taken, here), here],
    skipped: without(walk.skipped, here),
    trail: [...walk.trail, here],
  });
}

/** Not now: it comes again once the others are through; skipped a second time it is left. */
export function skipHere(walk: ProbeWalk): ProbeWalk {
  const { here } = walk;
  if (here === undefined) return walk;
  const trail = [...walk.trail, here];
  if (walk.skipped.includes(here))
    return onward({ ...walk, unreachable: [...walk.unreachable, here], skipped: without(walk.skipped, here), trail });
  return onward({ ...walk, skipped: [...walk.skipped, here], trail });
}

/** The tip does not get there: it is not offered again. */
export function cannotReach(walk: ProbeWalk): ProbeWalk {
  const { here } = walk;
  if (here === undefined) return walk;
  return onward({
    ...walk,
    unreachable: [...walk.unreachable, here],
    skipped: without(walk.skipped, here),
    trail: [...walk.trail, here],
  });
}

/** Back to where the probe was before, whatever came of it. */
export function stepBack(walk: ProbeWalk): ProbeWalk {
  const here = walk.trail.at(-1);
  if (here === undefined) return walk;
  return { ...walk, here, unreachable: without(walk.unreachable, here), trail: walk.trail.slice(0, -1) };
}

/** To a point by name, as another order of things suggests. */
export function goTo(walk: ProbeWalk, point: string | undefined): ProbeWalk {
  return point === walk.here ? walk : { ...walk, here: point };
}

/** Points without a reading that can still be had, in their order, the skipped ones last. */
export function pointsLeft(walk: ProbeWalk): string[] {
  const open = walk.order.filter((p) => !walk.taken.includes(p) && !walk.unreachable.includes(p));
  return [...open.filter((p) => !walk.skipped.includes(p)), ...open.filter((p) => walk.skipped.includes(p))];
}

/** What comes after the point here. */
export function pointAfter(walk: ProbeWalk): string | undefined {
  return walk.here === undefined
    ? undefined
    : nextOf(
        walk,
        pointsLeft(walk).filter((p) => p !== walk.here),
      );
}

function onward(walk: ProbeWalk): ProbeWalk {
  const left = pointsLeft(walk);
  const others = walk.here === undefined ? left : left.filter((p) => p !== walk.here || walk.skipped.includes(p));
  return { ...walk, here: nextOf(walk, others) };
}

/** On along the order from here; a point that was passed by comes after the end. */
function nextOf(walk: ProbeWalk, left: string[]): string | undefined {
  const at = walk.here === undefined ? -1 : walk.order.indexOf(walk.here);
  const fresh = left.filter((p) => !walk.skipped.includes(p));
  return fresh.find((p) => walk.order.indexOf(p) > at) ?? fresh[0] ?? left[0];
}

const without = (list: readonly string[], name: string) => list.filter((p) => p !== name);
