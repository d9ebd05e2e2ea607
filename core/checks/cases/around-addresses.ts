import { mends, to } from "./addresses.ts";
import type { Cases } from "./case.ts";

/** Cases of rules that look for what an address has besides that of its page. */
export const addressAroundCases: readonly Cases[] = [
  {
    rule: "by-way-of",
    source: "common practice: addresses that programs put around those of mails, posts and shared documents",
    wrong: mends(
      [
        "https://www.documents.example/url?q=https://tides.example/low%3Fday%3D2&sa=D&source=editors&ust=17",
        "https://tides.example/low?day=2",
      ],
      [
        "https://search.example/url?sa=t&url=https%3A%2F%2Ftides.example%2F&usg=AOv",
        "https://tides.example/",
      ],
      [
        "https://eur02.safelinks.mails.example/?url=https%3A%2F%2Ftides.example%2Flow&data=05%7C02&reserved=0",
        "https://tides.example/low",
      ],
      ["https://l.posts.example/l.php?u=http%3A%2F%2Ftides.example%2F&h=AT0", "http://tides.example/"],
      [
        "https://forum.example/redirect?to=https://tides.example/a?b=1#low",
        "https://tides.example/a?b=1#low",
      ],
      [
        "https://www.news.example/out/?target=https%3A%2F%2Fwww.tides.example%2F",
        "https://www.tides.example/",
      ],
      ["https://shop.example/away.php?to=https%3A%2F%2Ftides.example", "https://tides.example/"],
      [
        "https://click.letters.example/?redirect_url=https%3A%2F%2Ftides.example%2F",
        "https://tides.example/",
      ],
      [
        "https://board.example/linkfilter/?url=https%3A%2F%2Ftides.example%2Fa%20b",
        "https://tides.example/a%20b",
      ],
      [
        "https://b.example/go?dest=https%3A%2F%2Fx.tides.example%2F%3Fa%3D1%26b%3D2",
        "https://x.tides.example/?a=1&b=2",
      ],
    ),
    right: to(
      "https://tides.example/",
      "https://archive.example/web/2020/https://tides.example/",
      "https://posts.example/share?url=https%3A%2F%2Ftides.example%2F",
      "https://validator.example/check?uri=https%3A%2F%2Ftides.example%2F",
      "https://tides.example/sign-in?to=https%3A%2F%2Fshop.example%2F",
      "https://tides.example/go?to=https%3A%2F%2Ftides.example%2Flow",
      "https://tides.example/url?q=low+water",
      "https://tides.example/url?page=https%3A%2F%2Fshop.example%2F",
      "https://words.example/translate?u=https%3A%2F%2Ftides.example%2F",
      "https://forum.example/redirect?to=https://tides.example/a?b=1&c=2",
      "https://tides.cl/?url=https%3A%2F%2Fshop.example%2F",
      "https://tides.example/url",
      "https://tides.example/#/url?q=https://shop.example/",
      "https://tides.example/url?q=mailto%3Aorla%40tides.example",
    ),
  },
  {
    rule: "tracking-part",
    source: "common practice: names of parts that count visits",
    wrong: mends(
      ["https://tides.example/?utm_source=letter", "https://tides.example/"],
      [
        "https://tides.example/a?utm_source=letter&utm_medium=mail&day=2#low",
        "https://tides.example/a?day=2#low",
      ],
      ["https://tides.example/?day=2&fbclid=IwAR0abc", "https://tides.example/?day=2"],
      ["https://tides.example/?gclid=abc", "https://tides.example/"],
      ["https://tides.example/?msclkid=1&q=a%20b", "https://tides.example/?q=a%20b"],
      ["https://tides.example/a?mc_cid=1&mc_eid=2", "https://tides.example/a"],
      ["https://tides.example/?_hsenc=p2&_hsmi=3&x", "https://tides.example/?x"],
      ["https://tides.example/?mkt_tok=abc", "https://tides.example/"],
      ["https://tides.example/?UTM_Source=letter", "https://tides.example/"],
      ["https://tides.example/?pk_campaign=spring&q=1+2", "https://tides.example/?q=1+2"],
      ["https://tides.example/?ref_src=post", "https://tides.example/"],
    ),
    right: to(
      "https://tides.example/",
      "https://tides.example/?q=utm_source",
      "https://tides.example/?source=letter",
      "https://tides.example/utm_source=letter",
      "https://tides.example/?ref=main",
      "https://tides.example/#utm_source=letter",
      "https://tides.example/?campaign=spring",
      "https://tides.example/?id=fbclid",
      "https://tides.example/?src=a",
      "https://tides.example/?medium=mail",
      "https://tides.example/?clid=3",
      "https://tides.example/?utm=32N",
    ),
  },
];
