import { Injectable, Logger } from "@nestjs/common";
import type { ShareAudience } from "@vennet/core/checks/finding";
import { Problem } from "../errors/problem.ts";
import { Settings } from "../settings.ts";
import type { SharedFileAnswer } from "./drive.dto.ts";

/** The host of the stand-in drive. */
const driveHost = "drive.hesterley.example";
/** A file as the drive lists it. */
interface ListedFile {
  name: string;
  folder: string;
  share: string;
  size: number;
  audience: { kind: "owner" } | { kind: "group"; name: string } | { kind: "anyone" };
}

/** Lists the shared files of the drive that a book's author uses. So far that is the stand-in drive. */
@Injectable()
export class DriveService {
  private readonly logger = new Logger(DriveService.name);

  constructor(private readonly settings: Settings) {}

  /** Who may open each shared file, by its share address; nothing where the drive does not answer now. */
  async audiences(): Promise<Map<string, ShareAudience>> {
    try {
      return new Map(
        (await this.files()).map(({ address, audience, group }) => [
          address,
          audience === "group" ? { kind: "group", name: group! } : { kind: audience },
        ]),
      );
    } catch (error) {
      this.logger.warn(`Who may open shared files is not known: ${(error as Error).message}`);
      return new Map();
    }
  }

  /** The drive's files with their share addresses; none where no drive is set up. */
  async files(): Promise<SharedFileAnswer[]> {
    const { standIns, driveTimeoutMs } = this.settings;
    if (!standIns) return [];
    let listed: ListedFile[];
    try {
      const answer = await fetch(`http://127.0.0.1:${standIns.httpPort}/~/${driveHost}/.folders`, {
        signal: AbortSignal.timeout(driveTimeoutMs),
      });
      listed = (await answer.json()) as ListedFile[];
    } catch {
      throw new Problem(502, "drive-away", "The shared drive does not answer. Try again in a moment.");
    }
    return listed.map(({ name, folder, share, size, audience }) => ({
      name,
      folder,
      size,
      address: `https://${driveHost}/s/${share}`,
      audience: audience.kind,
      group: audience.kind === "group" ? audience.name : null,
    }));
  }
}
