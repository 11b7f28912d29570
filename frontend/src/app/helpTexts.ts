/** What each view is for. */
import { catalogue } from "../language/catalogue";

/** What each view is for, by the part of the address that names it: what it shows, and what is done in it. */
const HELP: Record<string, string> = catalogue("app.help", {
  classes: "Every class you work with, and what waits in it. A number leads to the pegs of just those students; the name of a class leads to all of them.",
  pegs: "Every student by every hand-in: a coat says how each of them stands. Choose a coat to see the work beside the board; the filters leave those who need you.",
  pile: "What came in and waits for you, the oldest first. Write feedback, then accept it or send it back; the next one opens by itself.",
  "hand-ins": "A hand-in says which pockets are collected, from whom and by when. As soon as it is set it hangs on the rail, and every student who is asked sees it.",
  template: "The pockets that every portfolio of this class has, and what each asks for. What you save reaches everybody; nothing that a student wrote is touched.",
  look: "One pocket of everybody side by side, to see who has begun. Choose a student to look in; looking changes nothing.",
  shows: "Pages that students made of the work they are proud of. The class sees the ones that you open to it.",
  setup: "Who is in the class, who works with it, and the days of the school. Paste a list to bring students in: each has a portfolio from then on.",
  caseload: "The students you support, in all their classes. What is agreed here counts everywhere from its first day.",
  school: "The calendar, what being late costs, the accounts and the mail of the whole school. What you change here counts in every class.",
  requests: "Somebody asks for a student whom you know. Until you say yes, they see nothing of the student but the name they typed.",
  portfolio: "The portfolio as its student has it. Looking changes nothing; a comment is for the student to read.",
});

const STUDENT_HELP: Record<string, string> = catalogue("app.studentHelp", {
  portfolio: "Your work of the term, pocket by pocket: put things in as you go, and say what they show. All of it saves by itself; your teacher gets it when you hand it in.",
  "to-hand-in": "What is asked of you, the most urgent first, and what each still wants. Open one to go on with it.",
  feedback: "What came back to you, the newest first. “Sent back” means: change it, then hand it in again.",
  shows: "Pages that people in your class made of the work they are proud of. You make your own under “My pockets”.",
});

/** The help of a view for whoever looks at it; undefined where it has none. */
export function helpOf(view: string, student: boolean): string | undefined {
  return (student ? STUDENT_HELP : HELP)[view];
}
