/** Sent to what gets the focus back; whoever knows better where in it the author was takes that upon itself. */
export const focusReturns = "focusreturns";

const focusable =
  "a[href], button:not(:disabled), input:not(:disabled):not([type=hidden]), select:not(:disabled), textarea:not(:disabled), summary, [contenteditable=true], [tabindex='0']";
const row = "li, tr, [role=row]";
const mostRemembered = 20;
/** Milliseconds that a button which cannot be pressed is waited for: most work is done by then. */
const patience = 1_000;

interface Focused {
  element: HTMLElement;
  /** From its parent upwards, each with where in it the focus was. */
  around: { parent: Element; index: number }[];
}

/**
 * Keeps the focus on the page when what has it goes: a panel that closes, a row that is deleted, a button that becomes
 * a field. It returns to where it came from, or goes to the row beside (WCAG 2.2 SC 2.4.3, 2.4.7); else whoever works
 * by keys begins again at the top of the page. Where a button has nothing left to do it goes to what stands nearest.
 */
export function keepFocus(): void {
  const before: HTMLElement[] = [];
  let last: Focused | null = null;
  let holds = false;
  addEventListener("focusin", ({ target }) => {
    if (!(target instanceof HTMLElement)) return;
    holds = true;
    if (target !== lent?.to) lent = null;
    if (last && last.element !== target) before.push(last.element);
    if (before.length > mostRemembered) before.shift();
    last = { element: target, around: waysUp(target) };
  });
  addEventListener("focusout", ({ relatedTarget }) => {
    const left = last;
    holds = relatedTarget !== null;
    if (relatedTarget !== null) return;
    // Told also of what is about to go; whoever presses beside everything wants the focus nowhere.
    setTimeout(() => {
      if (left === last && left && isThere(left.element) && document.hasFocus() && !hasFocus()) last = null;
    });
  });
  const look = (): void => {
    if (pressing) missed = true;
    if (!last || pressing || hasFocus()) return;
    // A button that waited while its work was done is there again.
    if (isThere(last.element)) giveBack(last.element);
    else if (!last.element.matches(":disabled") || !last.element.isConnected)
      giveBack(placeFor(last, before));
    else if (waiting !== last) waitFor(last);
  };
  let waiting: Focused | null = null;
  /** What has the focus in the place of a button that could not be pressed, until anything is pressed. */
  let lent: { from: HTMLElement; to: HTMLElement } | null = null;
  const waitFor = (focused: Focused): void => {
    waiting = focused;
    setTimeout(() => {
      const { element } = focused;
      const isLeft = last === focused && element.isConnected && element.matches(":disabled");
      if (waiting === focused) waiting = null;
      if (!isLeft || !document.hasFocus() || hasFocus()) return;
      const to = nearest(focused);
      lent = to && { from: element, to };
      giveBack(to);
    }, patience);
  };
  const takeBack = (): void => {
    if (!lent || !isThere(lent.from)) return;
    giveBack(lent.from);
  };
  // A button that got the focus in the middle of a press of these would be pressed by it.
  let pressing = false;
  let missed = false;
  addEventListener(
    "keydown",
    ({ key }) => {
      pressing = key === "Enter" || key === " ";
      lent = null;
    },
    true,
  );
  addEventListener("pointerdown", () => (lent = null), true);
  addEventListener("keyup", () => {
    pressing = false;
    if (missed) setTimeout(look);
    missed = false;
  });
  const concernsFocus = ({ attributeName, oldValue, target }: MutationRecord): boolean =>
    attributeName !== null &&
    last !== null &&
    target.contains(last.element) &&
    // The text is told its classes at every key, most often those that it has.
    (target as Element).getAttribute(attributeName) !== oldValue;
  new MutationObserver((changes) => {
    if (changes.some(({ target }) => target === lent?.from)) takeBack();
    // To ask what has the focus costs a layout, and the page changes with every key.
    if (!holds || !last?.element.isConnected || changes.some(concernsFocus)) look();
  }).observe(document.body, {
    childList: true,
    subtree: true,
    attributeOldValue: true,
    attributeFilter: ["class", "hidden", "disabled", "open"],
  });
}

/** Whether anything on the page has the focus. What became disabled loses it, and browsers tell that later or never. */
function hasFocus(): boolean {
  const { activeElement } = document;
  return activeElement !== null && activeElement !== document.body && !activeElement.matches(":disabled");
}

function waysUp(element: Element): Focused["around"] {
  const around: Focused["around"] = [];
  for (let child = element; child.parentElement; child = child.parentElement)
    around.push({ parent: child.parentElement, index: [...child.parentElement.children].indexOf(child) });
  return around;
}

/** Whether an element is on the page and can have the focus. */
function isThere(element: HTMLElement): boolean {
  return element.isConnected && element.matches(focusable) && element.checkVisibility();
}

function placeFor({ around }: Focused, before: readonly HTMLElement[]): HTMLElement | null {
  const at = around.findIndex(({ parent }) => parent.isConnected);
  if (at === -1) return null;
  const { parent, index } = around[at]!;
  const gone = around[at - 1]?.parent;
  const beside = gone?.matches(row) ? besideRow(parent, index) : null;
  return (
    beside ??
    inRow(parent, index, before) ??
    before.findLast(isThere) ??
    // Where the page is another, its content; the link to it, which comes first, would lie over what is above.
    (parent.querySelector("main") ? content() : firstIn(parent)) ??
    content()
  );
}

/** What stands nearest to something that cannot have the focus any more: behind it where it can be, else before it. */
function nearest({ element, around }: Focused): HTMLElement | null {
  for (const { parent } of around) {
    const there = [...parent.querySelectorAll<HTMLElement>(focusable)].filter(isThere);
    const isBehind = (one: Element): boolean =>
      (element.compareDocumentPosition(one) & Node.DOCUMENT_POSITION_FOLLOWING) !== 0;
    const place = there.find(isBehind) ?? there.at(-1);
    if (place) return place;
  }
  return null;
}

/** Where the row goes on of which a part is gone: where the author was in it before, or what stands there now. */
function inRow(parent: Element, index: number, before: readonly HTMLElement[]): HTMLElement | null {
  const around = parent.closest(row);
  if (!around) return null;
  const now = parent.children[index];
  return (
    before.findLast((one) => around.contains(one) && isThere(one)) ??
    (now instanceof HTMLElement && isThere(now) ? now : now ? firstIn(now) : null) ??
    firstIn(around)
  );
}

function content(): HTMLElement | null {
  const main = document.querySelector("main");
  if (main && !main.hasAttribute("tabindex")) main.tabIndex = -1;
  return main;
}

/** What can have the focus in the row that has come into the place of one that is gone, or in the last. */
function besideRow(list: Element, index: number): HTMLElement | null {
  const rows = [...list.children];
  const row = rows[Math.min(index, rows.length - 1)];
  return row ? firstIn(row) : null;
}

function firstIn(part: Element): HTMLElement | null {
  return [...part.querySelectorAll<HTMLElement>(focusable)].find(isThere) ?? null;
}

function giveBack(place: HTMLElement | null): void {
  if (!place) return;
  const isFree = place.dispatchEvent(new CustomEvent(focusReturns, { cancelable: true }));
  if (isFree) place.focus({ preventScroll: true });
}
