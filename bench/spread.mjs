/** The middle of several times, with the least and the most: what is measured once says little. */
export class Spread {
  constructor(times) {
    const sorted = [...times].sort((a, b) => a - b);
    [this.least, this.middle, this.most] = [sorted[0], sorted[sorted.length >> 1], sorted.at(-1)];
  }

  /** In milliseconds, or in seconds where it takes some. */
  toString() {
    const [by, unit, digits] = this.middle < 2000 ? [1, "ms", this.middle < 20 ? 1 : 0] : [1000, "s", 2];
    const show = (time) => (time / by).toFixed(digits);
    return `${show(this.middle)} ${unit} (${show(this.least)} to ${show(this.most)})`;
  }

  /** How many times as long as another it takes in the middle. */
  over(other) {
    return (this.middle / other.middle).toFixed(2);
  }
}

/**
 * Works taken in turns, so that what else the machine does falls on all of them.
 * @param works by their names
 * @param prepare makes what each work is given, anew for each time; not counted
 */
export function inTurns(rounds, works, prepare = () => undefined) {
  const times = Object.fromEntries(Object.keys(works).map((name) => [name, []]));
  for (let round = 0; round < rounds; round++) {
    for (const [name, work] of Object.entries(works)) {
      const given = prepare();
      const started = performance.now();
      work(given);
      times[name].push(performance.now() - started);
    }
  }
  return Object.fromEntries(Object.entries(times).map(([name, all]) => [name, new Spread(all)]));
}
