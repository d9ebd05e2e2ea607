import { webDestination } from "../destination/kinds/web.ts";
import { urlOf } from "../destination/url-of.ts";
import type { LinkRule } from "./finding.ts";

/** An address with a user name or a password in it. */
export const credentials: LinkRule = {
  id: "credentials",
  title: "An address carries a name and a password",
  severity: "stop",
  source: "RFC 3986, section 3.2.1: a password in an address is a security risk",
  find: ({ destination }) => {
    if (destination.kind !== "web") return null;
    const { username, password } = urlOf(destination);
    return username === "" && password === ""
      ? null
      : "The address carries a name or a password, which every reader would see. Take it out.";
  },
  mend: ({ destination }) => {
    if (destination.kind !== "web") return null;
    const url = new URL(destination.address);
    url.username = "";
    url.password = "";
    return { destination: webDestination(url.href) };
  },
};
