/** The words of following a class. */
import { catalogue } from "../language/catalogue";

export const TEXTS = catalogue("live", {
  itCouldNotBeUndone: "It could not be undone.",
});
