import { Body, Controller, Get, HttpCode, Param, Patch, Post } from "@nestjs/common";
import { ApiCreatedResponse, ApiNoContentResponse, ApiOkResponse, ApiTags } from "@nestjs/swagger";
import { OpenBook } from "../access/book.guard.ts";
import { Book } from "../books/book.entity.ts";
import { FoundWords } from "../chapters/found-words.dto.ts";
import { StepAnswer } from "../history/history.dto.ts";
import { stepAnswer } from "../history/history.controller.ts";
import {
  GonePlaceAnswer,
  NewPlaceAnswer,
  PlaceAnswer,
  RemovePlaceRequest,
  RenamePlaceRequest,
} from "./places.dto.ts";
import { PlacesService } from "./places.service.ts";

@ApiTags("places")
@Controller("books/:bookId/places")
export class PlacesController {
  constructor(private readonly places: PlacesService) {}

  @Get()
  @ApiOkResponse({ type: [PlaceAnswer], description: "Every landing place, in reading order." })
  async list(@OpenBook() book: Book): Promise<PlaceAnswer[]> {
    return this.places.list(book.id);
  }

  @Get("gone")
  @ApiOkResponse({
    type: [GonePlaceAnswer],
    description: "The places that are gone and that links still lead to.",
  })
  async gone(@OpenBook() book: Book): Promise<GonePlaceAnswer[]> {
    return this.places.gone(book.id);
  }

  @Post()
  @ApiCreatedResponse({ type: NewPlaceAnswer, description: "An anchor before words of a chapter." })
  async put(@OpenBook() book: Book, @Body() request: FoundWords): Promise<NewPlaceAnswer> {
    return { id: await this.places.put(book.id, request) };
  }

  @Patch(":placeId")
  @HttpCode(204)
  @ApiNoContentResponse()
  async rename(
    @OpenBook() book: Book,
    @Param("placeId") placeId: string,
    @Body() request: RenamePlaceRequest,
  ): Promise<void> {
    await this.places.rename(book.id, placeId, request.name);
  }

  @Post(":placeId/remove")
  @HttpCode(200)
  @ApiOkResponse({ type: StepAnswer })
  async remove(
    @OpenBook() book: Book,
    @Param("placeId") placeId: string,
    @Body() request: RemovePlaceRequest,
  ): Promise<StepAnswer> {
    return stepAnswer(await this.places.remove(book.id, placeId, request.to));
  }
}
