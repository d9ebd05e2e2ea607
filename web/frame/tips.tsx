import { useEffect, useLayoutEffect, useRef, useState } from "react";
import { createPortal } from "react-dom";

interface Tip {
  on: Element;
  words: string;
}

/** What else has words to be shown: given what is pointed at, the words and what they belong to. */
export const tipSources = new Set<(pointed: Element) => Tip | null>();

const gap = 6;

/** The words that something has for itself: those given to it, or the name of a button that shows but a sign. */
function ownTip(target: Element): Tip | null {
  const on = target.closest<HTMLElement>("[data-tip], button[aria-label]");
  if (!on) return null;
  const given = on.dataset["tip"];
  if (given !== undefined) return { on, words: given };
  return on.textContent.trim() === "" ? { on, words: on.getAttribute("aria-label")! } : null;
}

/**
 * The words of what shows only a sign, as `data-tip` has them, at once when it is pointed at or has the focus. They
 * stay while they are pointed at themselves or the focus stays, until it is acted on; Escape takes them away (WCAG 2.2,
 * 1.4.13).
 */
export function Tips() {
  const [pointed, setPointed] = useState<Tip | null>(null);
  const [focused, setFocused] = useState<Tip | null>(null);
  const tip = pointed ?? focused;
  const box = useRef<HTMLDivElement>(null);
  useEffect(() => {
    const tipOf = (target: Element): Tip | null => {
      let told = ownTip(target);
      for (const source of tipSources) told ??= source(target);
      return told;
    };
    const onPointer = ({ target }: Event): void => {
      if (target instanceof Element && !box.current?.contains(target)) setPointed(tipOf(target));
    };
    const onFocus = ({ target }: Event): void => {
      if (target instanceof Element && target.matches(":focus-visible")) setFocused(tipOf(target));
    };
    const onFocusLeft = (): void => setFocused(null);
    const hide = (): void => {
      setPointed(null);
      setFocused(null);
    };
    // As a press of the pointer does: what is acted on needs its words no more.
    const onKey = ({ key }: KeyboardEvent): void => {
      if (key === "Escape" || key === "Enter" || key === " ") hide();
    };
    // What moves away under the pointer is no longer pointed at; what has the focus takes its words along.
    const onScroll = ({ target }: Event): void => {
      const moves = (told: Tip): boolean => target instanceof Node && target.contains(told.on);
      setPointed((told) => (told && moves(told) ? null : told));
      setFocused((told) => (told && moves(told) ? { ...told } : told));
    };
    addEventListener("pointerover", onPointer);
    addEventListener("focusin", onFocus);
    addEventListener("focusout", onFocusLeft);
    addEventListener("pointerdown", hide);
    addEventListener("keydown", onKey);
    addEventListener("scroll", onScroll, true);
    return () => {
      removeEventListener("pointerover", onPointer);
      removeEventListener("focusin", onFocus);
      removeEventListener("focusout", onFocusLeft);
      removeEventListener("pointerdown", hide);
      removeEventListener("keydown", onKey);
      removeEventListener("scroll", onScroll, true);
    };
  }, []);
  useLayoutEffect(() => {
    const own = box.current;
    if (!own || !tip) return;
    const { left, width, top, bottom } = tip.on.getBoundingClientRect();
    const fits = bottom + gap + own.offsetHeight <= innerHeight;
    const wish = left + width / 2 - own.offsetWidth / 2;
    own.style.left = `${Math.max(gap, Math.min(wish, innerWidth - own.offsetWidth - gap))}px`;
    own.style.top = `${fits ? bottom + gap : top - gap - own.offsetHeight}px`;
  }, [tip]);
  if (!tip || !tip.on.isConnected) return null;
  return createPortal(
    // What it says is the name or the description of what it stands at.
    <div
      ref={box}
      aria-hidden
      className="fixed z-[60] max-w-80 border border-edge bg-paper px-2 py-0.5 text-sm whitespace-pre-line text-ink shadow-md [overflow-wrap:anywhere]"
    >
      {tip.words}
    </div>,
    document.body,
  );
}
