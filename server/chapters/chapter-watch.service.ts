import type { Server } from "node:http";
import {
  Injectable,
  Logger,
  type BeforeApplicationShutdown,
  type OnApplicationBootstrap,
} from "@nestjs/common";
import { HttpAdapterHost } from "@nestjs/core";
import { InjectDataSource } from "@nestjs/typeorm";
import { Observable, type Subscriber } from "rxjs";
import { DataSource } from "typeorm";
import type { ChapterRevisionAnswer } from "./chapters.dto.ts";

/** How soon a window hears of what another one has saved. */
const lookPause = 500;
const idlePause = 100;
/** A window asks again after so long, and is let in again only if it still may. */
const longestMs = 10 * 60_000;
/** Of one book; the oldest ends when there are more, and asks again. */
const mostWindows = 30;

interface Watched {
  windows: Set<Subscriber<ChapterRevisionAnswer[]>>;
  /** What was told last. */
  told: string;
  revisions: ChapterRevisionAnswer[];
}

/** Tells open windows which chapters of their book were saved, by whichever window and through whichever server. */
@Injectable()
export class ChapterWatchService implements OnApplicationBootstrap, BeforeApplicationShutdown {
  private readonly logger = new Logger(ChapterWatchService.name);
  private readonly books = new Map<string, Watched>();
  private isStopping = false;
  private looking: NodeJS.Timeout | undefined;
  private isBlind = false;

  constructor(
    @InjectDataSource() private readonly database: DataSource,
    private readonly adapter: HttpAdapterHost,
  ) {}

  onApplicationBootstrap(): void {
    this.lookLater();
  }

  beforeApplicationShutdown(): void {
    clearTimeout(this.looking);
    this.isStopping = true;
    for (const { windows } of this.books.values()) for (const window of windows) window.complete();
    // A window that hears nothing more would soon ask again over the same connection, and keep the server from ending.
    const server = this.adapter.httpAdapter.getHttpServer() as Server;
    setInterval(() => server.closeIdleConnections(), idlePause).unref();
  }

  /** The revisions of a book's chapters in their order, now and whenever any of it has changed. */
  watch(bookId: string): Observable<ChapterRevisionAnswer[]> {
    return new Observable((window) => {
      if (this.isStopping) return window.complete();
      const watched = this.books.get(bookId) ?? { windows: new Set(), told: "", revisions: [] };
      this.books.set(bookId, watched);
      watched.windows.add(window);
      if (watched.windows.size > mostWindows) [...watched.windows][0]!.complete();
      if (watched.told !== "") window.next(watched.revisions);
      const end = setTimeout(() => window.complete(), longestMs);
      return () => {
        clearTimeout(end);
        watched.windows.delete(window);
        if (watched.windows.size === 0) this.books.delete(bookId);
      };
    });
  }

  private async look(): Promise<void> {
    const ids = [...this.books.keys()];
    if (ids.length === 0) return;
    const rows: (ChapterRevisionAnswer & { bookId: string })[] = await this.database.query(
      "SELECT bookId, id, title, revision FROM chapter WHERE bookId IN (?) AND deletedAt IS NULL ORDER BY position",
      [ids],
    );
    const ofBooks = new Map(ids.map((id): [string, ChapterRevisionAnswer[]] => [id, []]));
    for (const { bookId, ...one } of rows) ofBooks.get(bookId)!.push(one);
    for (const [id, revisions] of ofBooks) {
      const watched = this.books.get(id);
      if (!watched) continue;
      const told = JSON.stringify(revisions);
      if (told === watched.told) continue;
      watched.told = told;
      watched.revisions = revisions;
      for (const window of watched.windows) window.next(revisions);
    }
  }

  private lookLater(): void {
    this.looking = setTimeout(() => {
      void this.look()
        .then(
          () => (this.isBlind = false),
          (error: unknown) => {
            // Told once, not at every look while the database is away.
            if (!this.isBlind) this.logger.error(`Chapters could not be looked at: ${String(error)}`);
            this.isBlind = true;
          },
        )
        .finally(() => {
          if (!this.isStopping) this.lookLater();
        });
    }, lookPause);
    this.looking.unref();
  }
}
