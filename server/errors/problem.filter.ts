import { Catch, HttpException, Logger, type ArgumentsHost, type ExceptionFilter } from "@nestjs/common";
import { CodedError } from "@vennet/core/errors";
import type { Request, Response } from "express";
import { isDatabaseAway } from "../database/away.ts";
import { databaseAway, lackOfRoom, PassingProblem, Problem } from "./problem.ts";

const codes: Record<number, string> = {
  400: "bad-request",
  401: "signed-out",
  403: "forbidden",
  404: "not-found",
  405: "method-not-allowed",
  413: "too-large",
  415: "media-type",
};

/** Turns every error into the one shape. What nobody foresaw is logged whole and told in general words. */
@Catch()
export class ProblemFilter implements ExceptionFilter {
  private readonly logger = new Logger("Problem");

  catch(error: unknown, host: ArgumentsHost): void {
    const http = host.switchToHttp();
    const response = http.getResponse<Response>();
    // Whoever sent it is gone, or was answered already.
    if (response.headersSent && http.getRequest<Request>().destroyed) return;
    const problem = this.asProblem(error, http.getRequest<Request>());
    if (response.headersSent) {
      response.end();
      return;
    }
    const { status, code, message, field } = problem;
    if (problem instanceof PassingProblem) response.setHeader("Retry-After", problem.retryAfter);
    response.status(status).json({ code, message, ...(field === undefined ? {} : { field }) });
  }

  private asProblem(error: unknown, request: Request): Problem {
    if (error instanceof Problem) return error;
    if (isDatabaseAway(error)) return databaseAway();
    const lack = lackOfRoom(error);
    if (lack) {
      this.logger.error(`There was no room: ${String(error)}`);
      return lack;
    }
    if (error instanceof CodedError) return new Problem(422, error.code, error.message, error.field);
    const status =
      error instanceof HttpException
        ? error.getStatus()
        : ((error as { status?: number; statusCode?: number }).status ?? 500);
    if (status === 413) {
      return new Problem(413, "too-large", "This is larger than 50 MB. Bring it in smaller parts.");
    }
    if (status < 500) {
      const message = status === 404 ? `There is nothing at ${request.path}.` : (error as Error).message;
      return new Problem(status, codes[status] ?? "bad-request", message);
    }
    this.logger.error(error instanceof Error ? (error.stack ?? error.message) : String(error));
    const id = (request as Request & { id?: string }).id ?? "";
    // How much was done before it failed is not known here.
    return new Problem(
      500,
      "internal",
      `Something went wrong in Vennet. Look whether what you did is there before you try again. (Request ${id})`,
    );
  }
}
