/** @jest-environment jsdom */
import "@testing-library/jest-dom";
import { render, screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { assemble } from "@/core/blocks/assemble";
import { blocksOf, readBlockFile, type BlockFile } from "@/core/blocks/block-file";
import { readLineUp } from "@/core/blocks/line-up";
import { propose } from "@/core/blocks/propose";
import { writeBlockFile } from "@/core/blocks/write-blocks";
import { BlockPanel } from "./block-panel";
import { ChainStrip } from "./chain-strip";

const TEXT = assemble({ maker: "Test", model: "T", mains: 230, hertz: 50 }, propose(readLineUp("12AX7 EL84 EZ80")).chain);
const file = () => readBlockFile(TEXT);
const block = (id: string) => blocksOf(file()).find((b) => b.id === id)!;

function panel(id: string) {
  const change = jest.fn<void, [BlockFile, string | undefined]>();
  render(
    <BlockPanel
      file={file()}
      block={block(id)}
      change={change}
      judged={{ wrong: ["V2 would run at 140 % of its plate watts"], figures: [] }}
    />,
  );
  return {
    user: userEvent.setup(),
    text: () => writeBlockFile(change.mock.calls.at(-1)![0]),
    inHand: () => change.mock.calls.at(-1)![1],
    change,
  };
}

test("options, another kind, a block behind it, away with it", async () => {
  const { user, text, inHand } = panel("V1A");
  expect(screen.getByText("■ V2 would run at 140 % of its plate watts")).toBeVisible();
  await user.selectOptions(screen.getByLabelText("Cathode"), "not bypassed");
  expect(text()).toContain('cathode="not bypassed"');
  await user.selectOptions(screen.getByLabelText("Turn into"), "pentode");
  expect(text()).toContain("*@block V1A kind=pentode");
  await user.selectOptions(screen.getByLabelText("Add behind it"), "tone-control");
  expect(inHand()).toBe("CUT");
  await user.selectOptions(screen.getByLabelText("Fed from"), "b2");
  expect(text()).toContain("*@block V1A kind=triode in=o_in out=o_v1a rail=b2");
  await user.click(screen.getByRole("button", { name: "Take V1A out" }));
  expect(text()).not.toContain("*@block V1A");
});

test("a tube is read when the field is left; a half that another block has is refused with its name", async () => {
  const { user, text, change } = panel("V1A");
  const field = screen.getByLabelText("Tube");
  await user.clear(field);
  await user.type(field, "V1B 12AX7{Enter}");
  expect(screen.getByRole("alert")).toHaveTextContent("V1B is in block V1B already");
  await user.clear(field);
  await user.type(field, "V1A 6V6{Enter}");
  expect(screen.getByRole("alert")).toHaveTextContent("6V6GT is no triode");
  await user.clear(field);
  await user.type(field, "what{Enter}");
  expect(screen.getByRole("alert")).toHaveTextContent("what: a socket and a tube type are accepted");
  expect(change).not.toHaveBeenCalled();
  await user.clear(field);
  await user.type(field, "V4A 12AT7{Enter}");
  expect(text()).toContain("XV4A p_v1a o_in k_v1a 12AT7");
});

test("arrow keys go along the chain; what cannot be right is marked", async () => {
  const pick = jest.fn<void, [string]>();
  const blocks = blocksOf(file());
  render(
    <ChainStrip
      blocks={blocks}
      judged={new Map([["V2", { wrong: ["too hot"], figures: ["250 V 48 mA 140 %"] }]])}
      inHand="V1B"
      pick={pick}
    />,
  );
  const user = userEvent.setup();
  screen.getByRole("button", { name: /V1B/ }).focus();
  await user.keyboard("{ArrowRight}");
  expect(pick).toHaveBeenCalledWith("V2");
  expect(screen.getByRole("button", { name: /V2 Single-ended output/ })).toHaveTextContent("■");
  expect(screen.getByRole("button", { name: /V2 Single-ended output/ })).toHaveTextContent("140 %");
});
