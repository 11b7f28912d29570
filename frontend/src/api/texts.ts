/** The words of talking with the server. */
import { catalogue, message } from "../language/catalogue";

export const TEXTS = catalogue("api", {
  somethingWentWrong: "Something went wrong.",
  coatPegCannotBeReached: "Coat Peg cannot be reached just now.",
  itTriesAgainByItself: "It tries again by itself.",
  theServerAnsweredStatus: message<{ status: number }>("The server answered {status, number}."),
  tryAgainInAMoment: "Try again in a moment.",
});
