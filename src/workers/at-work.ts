/** Says on the page itself that something is being worked out, for scripts that wait until a screen is whole. */

let open = 0;

/** The page carries `data-computing` from now until every work that was begun has ended. @returns to be called once, at its end. */
export function workBegins(): () => void {
  open++;
  show();
  let over = false;
  return () => {
    if (over) return;
    over = true;
    open--;
    show();
  };
}

function show(): void {
  // Tests of what asks workers have no page.
  globalThis.document?.documentElement.toggleAttribute("data-computing", open > 0);
}
