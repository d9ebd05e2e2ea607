import type { DynamicModule } from "@nestjs/common";
import { TypeOrmModule } from "@nestjs/typeorm";
import type { DataSourceOptions } from "typeorm";
import { databaseOptions } from "./data-source.ts";
import { PatientDataSource } from "./patient-data-source.ts";

/** The database at an address, for all rooms. That it is not there is told at once. */
export function databaseModule(url: string): DynamicModule {
  return TypeOrmModule.forRootAsync({
    useFactory: () => ({ ...databaseOptions(url), retryAttempts: 0 }),
    dataSourceFactory: (options) => new PatientDataSource(options as DataSourceOptions).initialize(),
  });
}
