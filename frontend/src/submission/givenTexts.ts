/** The words of what staff give with a pocket. */
import { catalogue } from "../language/catalogue";

export const GIVEN = catalogue("submission.given", {
  withTheDirections: "Given with the directions",
  startFromThis: "Start from this",
  openItMakeItYours: "Open it, make it yours, then add your own file below.",
  nothing: "Nothing was given to begin with.",
});
