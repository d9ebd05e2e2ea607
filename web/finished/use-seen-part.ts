import { useLayoutEffect, useRef, useState, type RefObject } from "react";

/** A stretch of something high, in CSS px from its top. */
export interface SeenPart {
  from: number;
  to: number;
}

const step = 200;

/** Which part of something high is on the screen, and a little around it: what lies elsewhere need not be drawn. */
export function useSeenPart(box: RefObject<Element | null>): SeenPart {
  const [part, setPart] = useState<SeenPart>({ from: 0, to: window.innerHeight });
  const look = (): void => {
    if (!box.current) return;
    const { top } = box.current.getBoundingClientRect();
    // In steps, so that not each frame of scrolling draws anew.
    const from = Math.floor(-top / step) * step;
    const to = Math.ceil((window.innerHeight - top) / step) * step;
    setPart((old) => (old.from === from && old.to === to ? old : { from, to }));
  };
  const latest = useRef(look);
  useLayoutEffect(() => {
    latest.current = look;
    // What stands above it may have grown.
    look();
  });
  useLayoutEffect(() => {
    const again = (): void => latest.current();
    const scroller = box.current?.closest("[data-scroll]");
    scroller?.addEventListener("scroll", again, { passive: true });
    window.addEventListener("resize", again);
    return () => {
      scroller?.removeEventListener("scroll", again);
      window.removeEventListener("resize", again);
    };
  }, [box]);
  return part;
}
