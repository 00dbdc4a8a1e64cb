/** Who is told of what: the screens of a job, the board, and who else is there. */

import { Live } from "./live";

test("a change is told to the job's screens and the board; who has left is told nothing", () => {
  const live = new Live();
  const told: string[] = [];
  const leave = live.watch(1001, () => told.push("1001"));
  live.watch(1002, () => told.push("1002"));
  const close = live.watchAll(() => told.push("board"));
  live.changed(1001);
  expect(told.splice(0)).toEqual(["1001", "board"]);
  live.changedAll();
  expect(told.splice(0)).toEqual(["1001", "1002", "board"]);
  leave();
  close();
  live.changed(1001);
  live.changedAll();
  expect(told).toEqual(["1002"]);
});

test("who comes and goes is told to who is there; a page that came back before its old stream ended stays", () => {
  const live = new Live();
  let told = 0;
  live.watch(1001, () => told++);
  const jm = { screen: "a", who: "J.M." };
  const leaveFirst = live.enter(1001, jm);
  live.enter(1001, { screen: "b", who: "R.T." });
  expect([live.present(1001).map((p) => p.who), told]).toEqual([["J.M.", "R.T."], 2]);
  const leaveAgain = live.enter(1001, { ...jm });
  leaveFirst();
  expect(live.present(1001).map((p) => p.who)).toEqual(["J.M.", "R.T."]);
  leaveAgain();
  expect(live.present(1001).map((p) => p.who)).toEqual(["R.T."]);
  expect([live.present(1002), told]).toEqual([[], 4]);
});
