/** Keys that act on the screen as a whole, and when they don't. */

/** Fields that take no text: a key that is pressed there is meant for the screen. */
const NO_TEXT = new Set(["radio", "checkbox", "button", "submit", "range", "file", "color"]);
const TAKES_KEYS = "input, textarea, select, [contenteditable], .ant-modal, .ant-drawer, .ant-select";

/** Whether a key goes into something that takes what is typed. */
export function typing({ target }: KeyboardEvent): boolean {
  if (!(target instanceof HTMLElement)) return false;
  const taker = target.closest(TAKES_KEYS);
  if (taker instanceof HTMLInputElement && NO_TEXT.has(taker.type))
    return target.closest(".ant-modal, .ant-drawer") !== null;
  return taker !== null;
}

/** A key that acts unless somebody is typing, or what has the focus took it for itself: a calendar, a mark, a pane's edge. */
export const free =
  (act: (event: KeyboardEvent) => void) =>
  (event: KeyboardEvent): void => {
    if (event.defaultPrevented || typing(event)) return;
    event.preventDefault();
    act(event);
  };

/** Whether the field that has the focus takes its text with Enter, and holds none that is not taken. */
export const nothingTyped = ({ target }: KeyboardEvent): boolean =>
  target instanceof HTMLElement && target.dataset["typing"] === "false";
