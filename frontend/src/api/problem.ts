/** An error of the API: what happened, where, and how to fix it. */
import { TEXTS } from "./texts";
export class Problem extends Error {
  readonly kind: string;
  readonly title: string;
  readonly fix: string;
  readonly where: string;
  readonly status: number;
  readonly more: Record<string, unknown>;

  constructor(document: Record<string, unknown>, status: number) {
    const { type, title, fix, where, ...more } = document;
    super(typeof title === "string" ? title : TEXTS.somethingWentWrong);
    this.kind = typeof type === "string" ? (type.split(":").pop() ?? "") : "";
    this.title = this.message;
    this.fix = typeof fix === "string" ? fix : "";
    this.where = typeof where === "string" ? where : "";
    this.status = status;
    this.more = more;
  }

  /** The server or its database cannot be reached: try again, lose nothing. */
  get away(): boolean {
    return this.status === 0 || this.status >= 502;
  }
}

/** What a lost connection looks like. */
export function unreachable(): Problem {
  return new Problem(
    { type: "urn:coatpeg:away", title: TEXTS.coatPegCannotBeReached, fix: TEXTS.itTriesAgainByItself },
    0,
  );
}

/** A problem from the body of an answer, whatever it holds. */
export function problemOf(body: unknown, status: number): Problem {
  if (typeof body === "object" && body !== null && "title" in body) return new Problem({ ...body }, status);
  return new Problem({ title: TEXTS.theServerAnsweredStatus({ status }), fix: TEXTS.tryAgainInAMoment }, status);
}
