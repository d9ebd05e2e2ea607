import { Injectable } from "@nestjs/common";
import { InjectDataSource } from "@nestjs/typeorm";
import type { LinkProof } from "@vennet/core/proof/compare";
import { stringify } from "csv-stringify/sync";
import { DataSource } from "typeorm";
import { columns } from "../database/columns.ts";
import { notFound } from "../errors/problem.ts";
import { Export } from "./export.entity.ts";
import type { ExportAnswer, ExportListingAnswer, ProofRowAnswer, WalkRequest } from "./exports.dto.ts";

const listed = 50;

/** Tells of the files that were exported, and of their proofs. */
@Injectable()
export class ExportHistoryService {
  constructor(@InjectDataSource() private readonly database: DataSource) {}

  /** The last exports, the newest first; their proofs in numbers alone. */
  async list(bookId: string): Promise<ExportListingAnswer[]> {
    const rows = await this.database.manager.find(Export, {
      where: { bookId },
      order: { createdAt: "DESC" },
      take: listed,
    });
    return rows.map(listing);
  }

  /** @throws Problem where the book has no such export */
  async find(bookId: string, id: string): Promise<Export> {
    const row = await this.database.manager.findOneBy(Export, { id, bookId });
    if (!row) throw notFound("export");
    return row;
  }

  /** Keeps what walking a file's links came to, in the place of what was kept before. */
  async keepWalk(bookId: string, id: string, { walked, differing }: WalkRequest): Promise<void> {
    await this.find(bookId, id);
    const walk = { walkedAt: new Date().toISOString(), walked, differing };
    await this.database.manager.update(Export, { id }, columns<Export>({ walk }));
  }

  /** An export with its whole proof. */
  async answer(bookId: string, id: string): Promise<ExportAnswer> {
    const row = await this.find(bookId, id);
    const { proof } = await this.database.manager.findOneOrFail(Export, {
      where: { id },
      select: { id: true, proof: true },
    });
    // Proofs of an earlier version do not list what follows by itself.
    const { rows, extra, pages, apparatus, made, faults } = JSON.parse(proof) as Omit<
      LinkProof,
      "made" | "faults"
    > &
      Partial<LinkProof>;
    return {
      ...listing(row),
      pages,
      apparatus,
      made: made?.total ?? 0,
      rows: rows.map(rowAnswer),
      madeRows: (made?.rows ?? []).map(rowAnswer),
      extraLinks: extra,
      faultsFound: faults ?? [],
    };
  }

  /** The proof as a table; at its end links that follow by themselves and are wrong, extra ones, and what else is wrong. */
  async proofCsv(bookId: string, id: string): Promise<string> {
    const { rows, madeRows, extraLinks, faultsFound } = await this.answer(bookId, id);
    const wrong = madeRows.filter(({ verdict }) => verdict !== "intact");
    const linked = [...rows, ...wrong].map(
      ({ chapter, text, destination, description, verdict, found, note }) => ({
        chapter,
        text,
        destination,
        description: description ?? "",
        verdict,
        found: found.join("; "),
        note: note ?? "",
      }),
    );
    const extra = extraLinks.map(({ text, destination, where }) => ({
      chapter: "",
      text,
      destination,
      description: "",
      verdict: "extra",
      found: where,
      note: "",
    }));
    const faults = faultsFound.map(({ where, what }) => ({
      chapter: "",
      text: "",
      destination: "",
      description: "",
      verdict: "fault",
      found: where,
      note: what,
    }));
    return stringify([...linked, ...extra, ...faults], { header: true, bom: true, escape_formulas: true });
  }
}

function rowAnswer({ link, verdict, found, note }: LinkProof["rows"][number]): ProofRowAnswer {
  // Proofs of an earlier version call the kind of what is expected otherwise.
  const expected = link.expected as {
    kind?: ProofRowAnswer["leadsTo"];
    as?: ProofRowAnswer["leadsTo"];
  } | null;
  return {
    linkId: link.id,
    chapter: link.chapter,
    text: link.text,
    destination: link.destination,
    // Proofs of an earlier version have no name.
    destinationName: link.name ?? link.destination,
    description: link.description,
    leadsTo: expected?.kind ?? expected?.as ?? null,
    expected: link.expected?.value ?? null,
    landing: link.landing ?? null,
    verdict,
    found,
    note,
  };
}

function listing(row: Export): ExportListingAnswer {
  const { id, format, options, warnings, fileName, size, tookMs, revision } = row;
  const { complete, intact, total, extra, madeWrong, faults, walk } = row;
  return {
    id,
    format,
    options: { ...options },
    warnings,
    fileName,
    size,
    tookMs,
    revision,
    textAt: row.textAt.toISOString(),
    createdAt: row.createdAt.toISOString(),
    complete,
    intact,
    total,
    extra,
    madeWrong,
    faults,
    walk,
  };
}
