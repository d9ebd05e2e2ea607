import { Injectable } from "@nestjs/common";
import { Problem } from "../errors/problem.ts";
import { Settings } from "../settings.ts";
import type { SharedFileAnswer } from "./drive.contract.ts";

/** The host of the stand-in drive. */
const driveHost = "drive.hesterley.example";

/** A file as the drive lists it. */
interface ListedFile {
  name: string;
  folder: string;
  share: string;
  size: number;
  audience: { is: "owner" } | { is: "group"; name: string } | { is: "anyone" };
}

/** Lists the shared files of the drive that a book's author uses. So far that is the stand-in drive. */
@Injectable()
export class DriveService {
  constructor(private readonly settings: Settings) {}

  /** The drive's files with their share addresses; none where no drive is set up. */
  async files(): Promise<SharedFileAnswer[]> {
    const { standIns } = this.settings;
    if (!standIns) return [];
    let listed: ListedFile[];
    try {
      const answer = await fetch(`http://127.0.0.1:${standIns.httpPort}/~/${driveHost}/.folders`);
      listed = (await answer.json()) as ListedFile[];
    } catch {
      throw new Problem(502, "drive-away", "The shared drive does not answer. Try again in a moment.");
    }
    return listed.map(({ name, folder, share, size, audience }) => ({
      name,
      folder,
      size,
      address: `https://${driveHost}/s/${share}`,
      audience: audience.is,
      group: audience.is === "group" ? audience.name : null,
    }));
  }
}
