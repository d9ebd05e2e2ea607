import { Module } from "@nestjs/common";
import { LedgerService } from "./ledger.service.ts";

/** Link uses and places, derived from the documents. */
@Module({
  providers: [LedgerService],
  exports: [LedgerService],
})
export class LedgerModule {}
