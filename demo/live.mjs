import { signInToDemo } from "./sign-in.mjs";

/**
 * Gives the demo book a past, over the HTTP interface: it is checked three times, while a shared file goes and comes
 * back, and exported in two formats. It takes as long as the slow pages among its destinations.
 * @param {string} server the server's address
 * @param {string} standInWeb the address of the stand-in web
 */
export async function liveWithDemo(server, standInWeb) {
  const call = await signInToDemo(server);
  const { id: book } = (await call("GET", "")).find(({ finished }) => finished === null);
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
  for (const event of ["reset", "deleted", "reset"]) {
    await happens(event);
    await ended(await call("POST", `/${book}/reach`, { which: "all" }));
  }
}
