import { readFile } from "node:fs/promises";
import { Injectable } from "@nestjs/common";
import { pictureKind } from "@vennet/core/import/pictures";
import type { EntityManager } from "typeorm";
import { FilesService, pictureType } from "../files/files.service.ts";
import { judgeMediaType } from "../files/media-type.ts";
import { receivedAt, type ReceivedFile } from "../files/receive.ts";
import { uploadedName, type UploadedFile } from "../files/uploaded-file.ts";
import { WorkerPools } from "../workers/worker-pools.ts";

/** A file that was sent: as it waits on disk, or the bytes of what was made of it. */
export interface Upload {
  name: string;
  mediaType: string;
  file: ReceivedFile | Uint8Array;
}

/** Takes what is sent with a manuscript, and keeps it until the manuscript has been brought in. */
@Injectable()
export class UploadsService {
  constructor(
    private readonly files: FilesService,
    private readonly workers: WorkerPools,
  ) {}

  /** What came with a form, judged: pictures have to be some. */
  async received(sent: UploadedFile[], arePictures: boolean): Promise<Upload[]> {
    const all = await Promise.all(
      sent.map(async (one): Promise<Upload[]> => {
        const name = uploadedName(one);
        const file = await receivedAt(one.path);
        if (!arePictures) {
          const { mediaType } = await judgeMediaType(file.sample, name);
          return [{ name, mediaType, file }, ...(await this.drawnBeside(name, file))];
        }
        const shown = await this.files.shownPicture(name, file);
        return [{ name, mediaType: await pictureType(name, shown.sample), file: shown }];
      }),
    );
    return all.flat();
  }

  /** A picture of a kind that not every reader shows, drawn beside itself: text may show it and link to it. */
  private async drawnBeside(name: string, file: ReceivedFile): Promise<Upload[]> {
    const kind = pictureKind(file.sample);
    if (kind === null || kind === "shown") return [];
    const drawn = await this.workers.run("drawPicture", { bytes: await readFile(file.path) });
    return drawn ? [{ name, mediaType: "image/png", file: drawn }] : [];
  }

  /** Keeps one that waits on disk until it has been brought in. */
  async keep({ name, mediaType, file }: Upload, manager: EntityManager): Promise<string> {
    const about = { bookId: null, name, mediaType, role: "upload" as const };
    const stored =
      file instanceof Uint8Array
        ? await this.files.store({ ...about, bytes: file }, manager)
        : await this.files.storeReceived(about, file, manager);
    return stored.id;
  }

  async keepAll(uploads: readonly Upload[], manager: EntityManager): Promise<string[]> {
    const ids: string[] = [];
    for (const upload of uploads) ids.push(await this.keep(upload, manager));
    return ids;
  }
}
