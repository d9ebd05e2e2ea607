import { Body, Controller, Get, HttpCode, Param, Patch, Post } from "@nestjs/common";
import { ApiNoContentResponse, ApiOkResponse, ApiTags } from "@nestjs/swagger";
import { Account } from "../accounts/account.entity.ts";
import { SignedIn } from "../accounts/session.guard.ts";
import { BooksService } from "../books/books.service.ts";
import { StepAnswer } from "../history/history.contract.ts";
import { stepAnswer } from "../history/history.controller.ts";
import { PlaceAnswer, RemovePlaceRequest, RenamePlaceRequest } from "./places.contract.ts";
import { PlacesService } from "./places.service.ts";

@ApiTags("places")
@Controller("books/:bookId/places")
export class PlacesController {
  constructor(
    private readonly books: BooksService,
    private readonly places: PlacesService,
  ) {}

  @Get()
  @ApiOkResponse({ type: [PlaceAnswer], description: "Every landing place, in reading order." })
  async list(@SignedIn() account: Account, @Param("bookId") bookId: string): Promise<PlaceAnswer[]> {
    return this.places.list((await this.books.own(account, bookId)).id);
  }

  @Patch(":placeId")
  @HttpCode(204)
  @ApiNoContentResponse()
  async rename(
    @SignedIn() account: Account,
    @Param("bookId") bookId: string,
    @Param("placeId") placeId: string,
    @Body() request: RenamePlaceRequest,
  ): Promise<void> {
    await this.places.rename((await this.books.own(account, bookId)).id, placeId, request.name);
  }

  @Post(":placeId/remove")
  @HttpCode(200)
  @ApiOkResponse({ type: StepAnswer })
  async remove(
    @SignedIn() account: Account,
    @Param("bookId") bookId: string,
    @Param("placeId") placeId: string,
    @Body() request: RemovePlaceRequest,
  ): Promise<StepAnswer> {
    return stepAnswer(
      await this.places.remove((await this.books.own(account, bookId)).id, placeId, request.to),
    );
  }
}
