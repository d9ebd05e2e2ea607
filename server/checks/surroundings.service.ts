import { Injectable } from "@nestjs/common";
import { foldedWords } from "@vennet/core/checks/folded-words";
import { FileLinksService } from "../files/file-links.service.ts";
import { FilePlacesService } from "../files/file-places.service.ts";
import { PictureSizesService } from "../files/picture-sizes.service.ts";
import { LedgerService } from "../ledger/ledger.service.ts";
import type { SurroundingsAnswer } from "./surroundings.dto.ts";

/** Tells an open chapter what rules need to know of the rest of its book. */
@Injectable()
export class SurroundingsService {
  constructor(
    private readonly ledger: LedgerService,
    private readonly filePlaces: FilePlacesService,
    private readonly fileLinks: FileLinksService,
    private readonly pictureSizes: PictureSizesService,
  ) {}

  async of(bookId: string, chapterId: string): Promise<SurroundingsAnswer> {
    await this.fileLinks.readAll(bookId);
    const [sizes, words, schemes, led, deadEnds] = await Promise.all([
      this.pictureSizes.of(bookId),
      this.words(bookId, chapterId),
      this.ledger.schemesBeside(bookId, chapterId),
      this.placesIn(bookId),
      this.fileLinks.deadEnds(bookId),
    ]);
    return {
      pictures: [...sizes].map(([id, size]) => ({ id, ...size })),
      words,
      files: led,
      schemes,
      deadEnds: [...deadEnds].map(([id, links]) => ({ id, links })),
    };
  }

  private async words(bookId: string, chapterId: string): Promise<SurroundingsAnswer["words"]> {
    const ends = new Map<string, Set<string>>();
    for (const { text, destination } of await this.ledger.sameWordsBeside(bookId, chapterId)) {
      const words = foldedWords(text);
      const known = ends.get(words);
      if (known) known.add(destination);
      else ends.set(words, new Set([destination]));
    }
    return [...ends].map(([words, all]) => ({ words, ends: [...all] }));
  }

  private async placesIn(bookId: string): Promise<SurroundingsAnswer["files"]> {
    return (await this.filePlaces.ledInto(bookId)).map(({ file, places }) => ({ id: file.id, ...places }));
  }
}
