const programs: [RegExp, string][] = [
  [/Edg\//, "Edge"],
  [/OPR\//, "Opera"],
  [/Firefox\//, "Firefox"],
  [/Chrom(?:e|ium)\//, "Chrome"],
  [/Safari\//, "Safari"],
];
const systems: [RegExp, string][] = [
  [/iPhone/, "an iPhone"],
  [/iPad/, "an iPad"],
  [/Android/, "Android"],
  [/Windows/, "Windows"],
  [/Mac OS X/, "a Mac"],
  [/Linux/, "Linux"],
];

/** What a browser or script is, in words, from what it calls itself (RFC 9110, 10.1.5). */
export function deviceName(userAgent: string): string {
  const program = programs.find(([mark]) => mark.test(userAgent))?.[1];
  const system = systems.find(([mark]) => mark.test(userAgent))?.[1];
  if (!program) return userAgent.split(" ")[0]?.slice(0, 60) || "A program that gives no name";
  return system ? `${program} on ${system}` : program;
}
