/** The words of who did what. */
import { catalogue } from "../language/catalogue";

export const PARTS = catalogue("submission.parts", {
  title: "Who did what",
  hint: "Say in a few words what your part was. Your teacher sees what each of you says, and who says that it is right.",
  mine: "What I did",
  keep: "Keep it",
  nothingYet: "has said nothing yet",
  confirmed: "says it is right",
  confirm: "What all of us say is right",
  youConfirmed: "You have confirmed what all of you say.",
});
