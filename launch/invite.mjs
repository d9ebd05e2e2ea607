import { withDatabase } from "./one-database.mjs";

// `npm run invite`: prints a link with which one account can be made, where REGISTRATION is invitation.

await withDatabase(async (url) => {
  const { invite } = await import("../server/dist/accounts/invite.js");
  console.log(await invite({ ...process.env, DATABASE_URL: url }));
});
