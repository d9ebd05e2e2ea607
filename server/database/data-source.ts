import type { DataSourceOptions } from "typeorm";
import { Account } from "../accounts/account.entity.ts";
import { Invitation } from "../accounts/invitation.entity.ts";
import { MailedLink } from "../accounts/mailed-link.entity.ts";
import { Session } from "../accounts/session.entity.ts";
import { Book } from "../books/book.entity.ts";
import { Acceptance } from "../checks/acceptance.entity.ts";
import { Chapter } from "../chapters/chapter.entity.ts";
import { Arrival } from "../import/arrival.entity.ts";
import { FileLink } from "../files/file-link.entity.ts";
import { KeptCopy } from "../reach/kept-copy.entity.ts";
import { GonePlace } from "../ledger/gone-place.entity.ts";
import { LinkUse } from "../ledger/link-use.entity.ts";
import { Place } from "../ledger/place.entity.ts";
import { Export } from "../exports/export.entity.ts";
import { FileChunk, StoredFile } from "../files/stored-file.entity.ts";
import { BookStep } from "../history/book-step.entity.ts";
import { ChapterVersion } from "../history/chapter-version.entity.ts";
import { Job } from "../jobs/job.entity.ts";
import { ReachAnswer } from "../reach/reach-answer.entity.ts";
import { ReachAsk } from "../reach/reach-ask.entity.ts";
import { ReachRun } from "../reach/reach-run.entity.ts";
import { ReachOutcome } from "../reach/reach-outcome.entity.ts";
import { FirstTables1764000000000 } from "./migrations/1764000000000-first-tables.ts";
import { LinksInFull1764000000001 } from "./migrations/1764000000001-links-in-full.ts";
import { LinkLooks1764000000003 } from "./migrations/1764000000003-link-looks.ts";
import { PlacesInFull1764000000004 } from "./migrations/1764000000004-places-in-full.ts";
import { PageLayout1764000000006 } from "./migrations/1764000000006-page-layout.ts";
import { ExportsInFull1764000000007 } from "./migrations/1764000000007-exports-in-full.ts";
import { ReachInFull1764000000005 } from "./migrations/1764000000005-reach-in-full.ts";
import { House1764000000008 } from "./migrations/1764000000008-house.ts";
import { AmongStrangers1764000000009 } from "./migrations/1764000000009-among-strangers.ts";
import { ProofFaults1764000000010 } from "./migrations/1764000000010-proof-faults.ts";
import { WalksKept1764000000011 } from "./migrations/1764000000011-walks-kept.ts";
import { PicturesTried1764000000012 } from "./migrations/1764000000012-pictures-tried.ts";
import { GonePlaces1764000000014 } from "./migrations/1764000000014-gone-places.ts";
import { Arrivals1764000000015 } from "./migrations/1764000000015-arrivals.ts";
import { FinishedFiles1764000000016 } from "./migrations/1764000000016-finished-files.ts";
import { FinishedFormats1764000000017 } from "./migrations/1764000000017-finished-formats.ts";
import { FilePlaces1764000000018 } from "./migrations/1764000000018-file-places.ts";
import { FileLinks1764000000022 } from "./migrations/1764000000022-file-links.ts";
import { LedgerHashes1764000000023 } from "./migrations/1764000000023-ledger-hashes.ts";
import { FileSources1764000000024 } from "./migrations/1764000000024-file-sources.ts";
import { KnownStates1764000000025 } from "./migrations/1764000000025-known-states.ts";
import { AsksByState1764000000026 } from "./migrations/1764000000026-asks-by-state.ts";
import { DeletedBooks1764000000027 } from "./migrations/1764000000027-deleted-books.ts";
import { KeptCopies1764000000021 } from "./migrations/1764000000021-kept-copies.ts";
import { Fingerprints1764000000020 } from "./migrations/1764000000020-fingerprints.ts";
import { PictureSizes1764000000019 } from "./migrations/1764000000019-picture-sizes.ts";
import { OwnFonts1764000000013 } from "./migrations/1764000000013-own-fonts.ts";
import { PlaceContext1764000000002 } from "./migrations/1764000000002-place-context.ts";

/** How many connections a server has at most: MariaDB lets 151 in by itself, from all servers that share it. */
const connections = 30;

/** How the server reaches its database. Migrations run at start; the schema is never synchronised. */
export function databaseOptions(url: string): DataSourceOptions {
  return {
    type: "mariadb",
    url,
    charset: "utf8mb4_unicode_520_ci",
    timezone: "Z",
    entities: [
      Account,
      Session,
      MailedLink,
      Invitation,
      Book,
      Chapter,
      LinkUse,
      Place,
      ChapterVersion,
      BookStep,
      StoredFile,
      FileChunk,
      Job,
      ReachOutcome,
      ReachAnswer,
      ReachAsk,
      ReachRun,
      Export,
      Acceptance,
      GonePlace,
      Arrival,
      FileLink,
      KeptCopy,
    ],
    migrations: [
      FirstTables1764000000000,
      LinksInFull1764000000001,
      PlaceContext1764000000002,
      LinkLooks1764000000003,
      PlacesInFull1764000000004,
      ReachInFull1764000000005,
      PageLayout1764000000006,
      ExportsInFull1764000000007,
      House1764000000008,
      AmongStrangers1764000000009,
      ProofFaults1764000000010,
      WalksKept1764000000011,
      PicturesTried1764000000012,
      OwnFonts1764000000013,
      GonePlaces1764000000014,
      Arrivals1764000000015,
      FinishedFiles1764000000016,
      FinishedFormats1764000000017,
      FilePlaces1764000000018,
      PictureSizes1764000000019,
      Fingerprints1764000000020,
      KeptCopies1764000000021,
      FileLinks1764000000022,
      LedgerHashes1764000000023,
      FileSources1764000000024,
      KnownStates1764000000025,
      AsksByState1764000000026,
      DeletedBooks1764000000027,
    ],
    poolSize: connections,
    // A database that is gone without a word is given up soon, and looked for anew.
    connectTimeout: 5_000,
    // Rows that are only read, and gaps between rows, are not locked against other authors' writing.
    isolationLevel: "READ COMMITTED",
    migrationsRun: true,
    synchronize: false,
    logging: false,
  };
}
