import type { Case, Cases } from "./case.ts";

const to = (...addresses: string[]): string[] => addresses.map((address) => `Write to [us](<${address}>).`);

/** An email that was asked and goes nowhere, in a book whose other email is well. */
const broken = (address: string, state: "broken" | "sound" | "unsure" = "broken"): Case => ({
  text: `Write to [us](${address}), or to [Orla](mailto:orla@causeways.example).`,
  asked: { [address]: state, "mailto:orla@causeways.example": "sound" },
});

/** Cases of rules that look at messages. */
export const mailCases: readonly Cases[] = [
  {
    rule: "mail-form",
    source: "RFC 5321, section 4.5.3.1, RFC 6068, sections 2 and 4 to 6 (from memory)",
    wrong: to(
      "mailto:?subject=Tide",
      "mailto:wardens@causeways",
      `mailto:${"a".repeat(65)}@causeways.example`,
      `mailto:a@${"b".repeat(250)}.example`,
      "mailto:a@causeways.example?attach=plan.pdf",
      "mailto:a.@causeways.example",
      "mailto:.a@causeways.example",
      "mailto:a..b@causeways.example",
      "mailto:a@causeways.example?body=One%0ATwo",
      "mailto:causeways.example",
      "mailto:a%20b@causeways.example",
      "mailto:a@b@causeways.example",
      "mailto:a@causeways.example,b",
      "mailto:a@cause ways.example",
      "mailto:a@-causeways.example",
    ),
    right: to(
      `mailto:${"a".repeat(64)}@causeways.example`,
      "mailto:a@causeways.example",
      "mailto:a@causeways.example,b@causeways.example?cc=c@d.example&subject=S&body=B",
      "mailto:a@causeways.example?In-Reply-To=%3C1@a.example%3E",
      "mailto:a.b@causeways.example?body=One%0D%0ATwo",
      "mailto:a+tide@causeways.example",
      "mailto:o'hara@causeways.example",
      "mailto:a_b-c@causeways.example",
      "mailto:a@causeways.co.uk",
      "mailto:?to=a@causeways.example&subject=x",
      "mailto:gorby%25kremvax@causeways.example",
      "mailto:a@causeways.example?subject=caf%C3%A9",
      "mailto:unlikely%3Faddress@causeways.example",
    ),
  },
  {
    rule: "mail-slip",
    source: "common practice: one letter too many, too few, other or swapped",
    wrong: [
      [broken("mailto:orla@gmial.com"), "mailto:orla@gmail.com"],
      [broken("mailto:orla@gmai.com"), "mailto:orla@gmail.com"],
      [broken("mailto:orla@gmaill.com?subject=Tide"), "mailto:orla@gmail.com?subject=Tide"],
      [broken("mailto:orla@gnail.com"), "mailto:orla@gmail.com"],
      [broken("mailto:orla@hotmial.com"), "mailto:orla@hotmail.com"],
      [broken("mailto:orla@yahooo.com"), "mailto:orla@yahoo.com"],
      [broken("mailto:orla@outlok.com"), "mailto:orla@outlook.com"],
      [broken("mailto:orla@t-onlin.de"), "mailto:orla@t-online.de"],
      [broken("mailto:orla@causeway.example"), "mailto:orla@causeways.example"],
      [
        broken("mailto:pell@byre.test,orla@cuaseways.example"),
        "mailto:pell@byre.test,orla@causeways.example",
      ],
    ],
    right: [
      ...["mail.com", "email.com", "ymail.com", "yahoo.co", "freie.fr", "example.co", "gmial.com"].map(
        (domain) => broken(`mailto:orla@${domain}`, "sound"),
      ),
      ...["gmail.co", "gmx.com"].map((domain) => broken(`mailto:orla@${domain}`, "unsure")),
      ...["example.org", "harbour.example", "byre.test", "web.test"].map((domain) =>
        broken(`mailto:orla@${domain}`),
      ),
      "Write to [us](mailto:orla@gmial.com).",
    ],
  },
];
