/** What a school administrator keeps: the calendar, what being late costs, the staff accounts; and which mail was sent. */
import { useSession } from "../api/session";
import { Lost } from "../app/Lost";
import { useAddress } from "../ui/address";
import { AccountsPart } from "./AccountsPart";
import { CalendarPart } from "./CalendarPart";
import { LatePart } from "./LatePart";
import { MailPart } from "./MailPart";
import { TEXTS } from "./texts";

const PARTS = { calendar: TEXTS.calendar, late: TEXTS.lateWork, accounts: TEXTS.accounts, mail: TEXTS.mail } as const;
type Part = keyof typeof PARTS;

export function SchoolView() {
  const session = useSession();
  const [address, setAddress] = useAddress();
  if (!session.person?.administrator) return <Lost />;
  const asked = address.get("part");
  const part: Part = asked !== null && asked in PARTS ? (asked as Part) : "calendar";
  return (
    <div className="flex min-h-0 flex-1 max-md:flex-col">
      <nav aria-label={TEXTS.theSchool} className="flex w-44 shrink-0 flex-col border-r border-line bg-paper py-3 max-md:w-full max-md:flex-row max-md:py-0">
        {(Object.keys(PARTS) as Part[]).map((one) => (
          <button
            key={one}
            type="button"
            aria-current={one === part ? "page" : undefined}
            onClick={() => setAddress({ part: one })}
            className={`flex min-h-10 items-center border-l-4 px-4 text-left font-semibold ${
              one === part ? "border-copper bg-today text-ink" : "border-transparent text-ink-soft hover:text-ink"
            }`}
          >
            {PARTS[one]}
          </button>
        ))}
      </nav>
      <div className="flex min-h-0 min-w-0 flex-1 flex-col">
        {part === "accounts" && <AccountsPart />}
        {part === "late" && <LatePart />}
        {part === "mail" && <MailPart />}
        {part === "calendar" && <CalendarPart />}
      </div>
    </div>
  );
}
