/** The words of somebody's news. */
import { catalogue, message } from "../language/catalogue";

/** A student's news. */
export const NEWS = catalogue("app.news", {
  none: "Nothing new in the last 30 days.",
  what: {
    sent_back: "was sent back",
    accepted: "was accepted",
    commented: "has a comment",
    annotated: "has more comments on the work",
    class_noted: "has a note to the class",
    group_to_choose: "has groups to choose from: say which is yours",
    page_together: "is a page that a classmate has begun with you",
    given_out: "is for you: your teacher has put a copy into your pocket",
    copy_renewed: "is newer now, in your pocket",
    answered: "has an answer to a comment",
    handed_in_for: "was handed in for you",
    handin_set: "is asked for",
    handin_moved: "is due on another day now",
    show_page_opened: "Your show page is open to the class",
    own_due_set: "has a date of your own",
    reminded: "Your teacher reminds you of what is missing",
    receipt: "is handed in; your receipt",
    handed_in: "was handed in by a student",
    join_requested: "asks for a student whom you know",
    join_settled: "was asked for, and there is an answer",
    list_arrived: "has a new class list waiting",
    pages_missing: "has your photographed pages without one that never arrived: look through them",
    picture_unreadable: "could not be read: add it once more",
    mail_bounced: "A mail to your address could not be delivered. Ask an administrator to look at the address.",
  },
  severalHandedIn: message<{ count: number }>("{count, plural, one {# student has} other {# students have}} handed it in"),
  mail: "By mail",
  hows: { at_once: "at once", daily: "once a day", never: "not at all" },
  receipts: "my receipts too",
  mailKept: "Kept.",
  mailNotKept: "Not kept just now; choose once more.",
});
