import { Column, Entity, PrimaryColumn } from "typeorm";
import { BelongsTo } from "../database/belongs-to.ts";

/** What a place was called that is not in its book any more: links that still lead to it are told by that name. */
@Entity("gone_place")
export class GonePlace {
  @PrimaryColumn("char", { length: 36 })
  @BelongsTo("Book", "FK_gone_place_book")
  bookId: string;

  @PrimaryColumn("varchar", { length: 64 })
  placeId: string;

  @Column("varchar", { length: 1000 })
  name: string;
}
