import { rm } from "node:fs/promises";
import { Injectable, type CanActivate, type ExecutionContext } from "@nestjs/common";
import type { Response } from "express";
import type { OpenedRequest } from "../access/book.guard.ts";
import { QuotaService } from "../accounts/quota.service.ts";
import { PassingProblem, Problem } from "../errors/problem.ts";
import { DiskRoom } from "../operating/disk-room.ts";
import { Settings } from "../settings.ts";
import { formLimit, type UploadedFile } from "./uploaded-file.ts";

const retryAfterSeconds = 10;

/**
 * Stands before every route that takes a form with files: so many at once for each account, none that is larger than
 * a form may be, and none for which there is no room.
 */
@Injectable()
export class UploadGuard implements CanActivate {
  private readonly underWay = new Map<string, number>();

  constructor(
    private readonly settings: Settings,
    private readonly disk: DiskRoom,
    private readonly quota: QuotaService,
  ) {}

  async canActivate(context: ExecutionContext): Promise<boolean> {
    const http = context.switchToHttp();
    const request = http.getRequest<OpenedRequest>();
    if (!request.account || !request.is("multipart/form-data")) return true;
    const bytes = Number(request.headers["content-length"] ?? NaN);
    // RFC 9110, 15.5.12. What does not say how long it is cannot be kept within a limit before it has come.
    if (Number.isNaN(bytes))
      throw new Problem(411, "length", "Say how long the form is (Content-Length), then it can be taken.");
    if (bytes > formLimit)
      throw new Problem(413, "too-large", "This is larger than 300 MB in all. Bring it in smaller parts.");
    await this.disk.assertRoom(bytes);
    await this.quota.assertBytes(request.account.id, bytes);
    const response = http.getResponse<Response>();
    this.begin(request.account.id, response);
    response.once("close", () => void dropUploads(request));
    return true;
  }

  private begin(accountId: string, response: Response): void {
    const count = this.underWay.get(accountId) ?? 0;
    if (count >= this.settings.uploadsAtOnce) {
      throw new PassingProblem(
        429,
        "uploads-at-once",
        `${count} uploads of yours are under way, which is as many as there may be at once. Try again when one has ended.`,
        retryAfterSeconds,
      );
    }
    this.underWay.set(accountId, count + 1);
    response.once("close", () => {
      const left = this.underWay.get(accountId)! - 1;
      if (left === 0) this.underWay.delete(accountId);
      else this.underWay.set(accountId, left);
    });
  }
}

/** What a form left on disk goes when its request is over, also where the request was refused for another reason. */
async function dropUploads(request: OpenedRequest): Promise<void> {
  const { files = {} } = request as unknown as { files?: Record<string, UploadedFile[]> };
  const paths = Object.values(files).flatMap((sent) => sent.map(({ path }) => path));
  await Promise.all(paths.map((path) => rm(path, { force: true })));
}
