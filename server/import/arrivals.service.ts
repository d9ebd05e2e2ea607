import { Injectable } from "@nestjs/common";
import { InjectDataSource } from "@nestjs/typeorm";
import { DataSource } from "typeorm";
import { notFound } from "../errors/problem.ts";
import { Arrival } from "./arrival.entity.ts";
import { arrivalAnswer, type ArrivalAnswer } from "./import.dto.ts";

/** Tells what became of the manuscripts that were brought in. */
@Injectable()
export class ArrivalsService {
  constructor(@InjectDataSource() private readonly database: DataSource) {}

  /** Those of a book, the last first. */
  async list(bookId: string): Promise<ArrivalAnswer[]> {
    const arrivals = await this.database.manager.find(Arrival, {
      where: { bookId },
      order: { createdAt: "DESC" },
      take: 20,
      select: { id: true, fileName: true, grouped: true, createdAt: true },
    });
    return arrivals.map(arrivalAnswer);
  }

  /** Every link of a file with what became of it, as a table. */
  async csv(id: string): Promise<string> {
    const arrival = await this.database.manager.findOne(Arrival, {
      where: { id },
      select: { id: true, csv: true },
    });
    if (!arrival) throw notFound("arrival proof");
    return arrival.csv;
  }
}
