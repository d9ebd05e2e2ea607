/** A port of the loopback interface that is free now. */
export function freePort(): Promise<number>;
