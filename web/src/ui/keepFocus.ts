/** Keeps the focus near when what had it is taken away, so that a keyboard goes on where it was. */

/** Not a field: a phone would open its keyboard for it. */
const FOCUSABLE = "a[href], button:not(:disabled), [tabindex='0']";

/** Watches the page. What was around the thing that had the focus takes it, the nearest first. */
export function keepFocus(page: Document = document): void {
  let around: Element[] = [];
  let address = "";
  page.addEventListener("focusin", ({ target }) => {
    around = [];
    address = window.location.hash;
    for (let at = target as Element | null; at && at !== page.body; at = at.parentElement) around.push(at);
  });
  new MutationObserver(() => {
    const [held, ...outer] = around;
    if (!held || held.isConnected || (page.activeElement && page.activeElement !== page.body)) return;
    around = [];
    // Another page begins where pages begin.
    if (address !== window.location.hash) return;
    for (const near of outer.filter((one) => one.isConnected)) {
      const next = near.matches(FOCUSABLE) ? near : near.querySelector(FOCUSABLE);
      if (next instanceof HTMLElement || next instanceof SVGElement) return next.focus({ preventScroll: true });
    }
  }).observe(page, { childList: true, subtree: true });
}
