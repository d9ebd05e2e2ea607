/** Where a card would like to be, and how tall it is; both in pixels. */
export interface CardWish {
  id: string;
  wish: number;
  height: number;
}

const gap = 6;

/**
 * Places margin cards one under the other, each as near to its line as the others let it. None overlap.
 * The active card gets its wish; its neighbours make room, upwards before it and downwards behind it.
 * @returns each card's distance from the top, by id
 */
export function placeCards(cards: CardWish[], active: string | null): Map<string, number> {
  const tops = cards.map((card) => card.wish);
  const pushDown = (from: number): void => {
    for (let i = from; i < cards.length; i++) {
      if (i > 0) tops[i] = Math.max(tops[i]!, tops[i - 1]! + cards[i - 1]!.height + gap);
    }
  };
  pushDown(0);
  const at = cards.findIndex((card) => card.id === active);
  if (at > 0) {
    const needed = cards.slice(0, at).reduce((sum, card) => sum + card.height + gap, 0);
    tops[at] = Math.max(cards[at]!.wish, needed);
    for (let i = at - 1; i >= 0; i--) tops[i] = Math.min(tops[i]!, tops[i + 1]! - cards[i]!.height - gap);
    for (let i = at + 1; i < cards.length; i++) tops[i] = cards[i]!.wish;
    pushDown(at + 1);
  }
  return new Map(cards.map((card, i) => [card.id, Math.round(tops[i]!)]));
}
