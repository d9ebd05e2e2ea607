import { signInToDemo } from "./sign-in.mjs";

/**
 * Gives the demo book a past, over the HTTP interface: it is checked three times, while a shared file goes and comes
 * back, and exported in two formats; its leaflet is checked once. It takes as long as the slow pages among its destinations.
 * @param {string} server the server's address
 * @param {string} standInWeb the address of the stand-in web
 */
export async function liveWithDemo(server, standInWeb) {
  const call = await signInToDemo(server);
  const all = await call("GET", "");
  const { id: book } = all.find(({ finished }) => finished === null);
  const ended = async ({ id }) => call("GET", `/jobs/${id}/events`);
  const happens = async (event) => {
    await fetch(`${standInWeb}/~/drive.hesterley.example/.events`, {
      method: "POST",
      body: new URLSearchParams({ event, share: "refuge-r5" }),
      redirect: "manual",
    });
  };
  await ended(await call("POST", `/${book}/exports`, { format: "pdf" }));
  await ended(await call("POST", `/${book}/exports`, { format: "epub" }));
  for (const { id, finished } of all)
    if (finished) await ended(await call("POST", `/${id}/reach`, { which: "all" }));
  for (const event of ["reset", "deleted", "reset"]) {
    await happens(event);
    await ended(await call("POST", `/${book}/reach`, { which: "all" }));
  }
}
