import robots from "robots-parser";

// Its types speak of a default export, which this module of the older kind does not have.
/** What a host asks of programs, by its `robots.txt` (RFC 9309). */
export const readRobots = robots as unknown as typeof robots.default;
