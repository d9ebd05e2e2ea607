/** What the name servers of a domain say of its mail: the exchangers, or that they fail. */
export type StandInMailRecords =
  | { exchangers: { preference: number; name: string }[]; hasAddress: boolean }
  | { failure: "unknown-name" | "name-server" };

const takesMail: StandInMailRecords = {
  exchangers: [{ preference: 10, name: "mail.hesterley.example" }],
  hasAddress: true,
};

const domains: Record<string, StandInMailRecords> = {
  "nomail.example": { exchangers: [{ preference: 0, name: "" }], hasAddress: true },
  "byaddress.example": { exchangers: [], hasAddress: true },
  "nowhere.example": { exchangers: [], hasAddress: false },
  "lame.example": { failure: "name-server" },
  "unknown.example": { failure: "unknown-name" },
  "closed.hesterley.example": { failure: "unknown-name" },
};

/** The mail records of a domain; every other domain takes mail. */
export function mailRecords(domain: string): StandInMailRecords {
  return domains[domain] ?? takesMail;
}
