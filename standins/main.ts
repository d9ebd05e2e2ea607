import { writeFileSync } from "node:fs";
import { join } from "node:path";
import { startLetterbox } from "./mail/letterbox.ts";
import { startStandInWeb } from "./web/stand-in-web.ts";

// Starts the stand-ins, and leaves their ports and certificate in the folder that is given. Whoever starts them again
// gives the ports that they had.
const [folder, wantedHttp = "0", wantedTls = "0", wantedMail = "0"] = process.argv.slice(2);
const { httpPort, tlsPort, authority } = await startStandInWeb({
  httpPort: Number(wantedHttp),
  tlsPort: Number(wantedTls),
  keptIn: join(folder!, "stand-in-certificates.json"),
});
const mailPort = await startLetterbox(Number(wantedMail));
const authorityFile = join(folder!, "stand-in-web.pem");
writeFileSync(authorityFile, authority);
writeFileSync(
  join(folder!, "stand-ins.json"),
  JSON.stringify({ httpPort, tlsPort, mailPort, authorityFile }),
);
process.send?.("listening");
process.on("disconnect", () => process.exit(0));
