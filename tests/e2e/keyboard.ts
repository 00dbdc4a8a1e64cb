/** A keyboard that counts its keys: a letter is one, so are Tab and Enter. Beside them stand the keys that the acts themselves need. */

import type { Page } from "./test";

export class Keys {
  pressed = 0;
  /** What the acts need: the letters of each entry and its Enter, one key for each control that is gone to. */
  needed = 0;
  constructor(private readonly page: Page) {}

  async type(text: string): Promise<void> {
    this.pressed += text.length;
    this.needed += text.length;
    await this.page.keyboard.type(text);
  }

  async press(key: string, times = 1): Promise<void> {
    this.pressed += times;
    for (let i = 0; i < times; i++) await this.page.keyboard.press(key);
  }

  /** One line and its Enter. */
  async enter(text: string): Promise<void> {
    await this.type(text);
    await this.act("Enter");
  }

  /** A key that the act itself needs. */
  async act(key: string): Promise<void> {
    this.needed++;
    await this.press(key);
  }

  /** Label, name or text of what has the focus. */
  focused(): Promise<string> {
    return this.page.evaluate(() => {
      const e = document.activeElement as HTMLInputElement | null;
      return [e?.getAttribute("aria-label"), e?.labels?.[0]?.textContent, e?.textContent].find((t) => t?.trim())?.trim() ?? "";
    });
  }

  /** Tab until that control has the focus. @param key Shift+Tab to go back. */
  async tabTo(name: RegExp | string, key: "Tab" | "Shift+Tab" = "Tab"): Promise<void> {
    this.needed++;
    for (let i = 0; i < 60; i++) {
      await this.press(key);
      const focused = await this.focused();
      if (typeof name === "string" ? focused === name : name.test(focused)) return;
    }
    throw new Error(`no ${name} is reached by Tab`);
  }
}
