import { Global, Module, type DynamicModule } from "@nestjs/common";
import { Settings } from "./settings.ts";

/** What is set from outside, for every room. */
@Global()
@Module({})
export class SettingsModule {
  /** The settings as they were read at the start, for all rooms. */
  static with(settings: Settings): DynamicModule {
    return {
      module: SettingsModule,
      providers: [{ provide: Settings, useValue: settings }],
      exports: [Settings],
    };
  }
}
