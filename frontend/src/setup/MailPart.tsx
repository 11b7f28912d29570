/** Which mail was sent: to whom, about what, how it went. What it says is shown in the demo only, and kept nowhere else. */
import { useQuery } from "@tanstack/react-query";
import type { Schema } from "../api/client";
import { mailQuery, mailsQuery } from "../api/queries";
import { useAddress } from "../ui/address";
import { moment } from "../ui/dates";
import { Failed, Waiting } from "../ui/Waiting";
import { MAIL } from "./texts";

export function MailPart() {
  const mails = useQuery(mailsQuery);
  const [address, setAddress] = useAddress();
  const open = Number(address.get("mail")) || null;
  if (mails.isPending) return <Waiting />;
  if (mails.isError) return <Failed error={mails.error} again={() => void mails.refetch()} />;
  const chosen = mails.data.find((one) => one.id === open);
  return (
    <section aria-labelledby="mail" className="flex min-h-0 flex-1 flex-col gap-3 p-5">
      <h1 id="mail" className="text-xl">
        {MAIL.title}
      </h1>
      <p className="max-w-4xl text-ink-soft">{MAIL.hint}</p>
      {mails.data.length === 0 && <p>{MAIL.none}</p>}
      <div className="flex min-h-0 flex-1 gap-4 max-lg:flex-col">
        <ul className="min-w-0 flex-1 divide-y divide-line self-start overflow-y-auto rounded-lg border border-edge bg-paper empty:hidden max-lg:w-full lg:max-h-full">
          {mails.data.map((one) => (
            <li key={one.id}>
              <button
                type="button"
                aria-expanded={one.id === open}
                onClick={() => setAddress({ part: "mail", ...(one.id === open ? {} : { mail: String(one.id) }) })}
                className={`block w-full px-4 py-2 text-left ${one.id === open ? "bg-today" : "hover:bg-ground"}`}
              >
                <span className="block break-words font-semibold">{one.subject}</span>
                <span className="block break-words text-quiet">
                  {`${one.to} · ${moment(one.at)}`}
                  {one.state === "bounced" && <strong className="text-overdue">{` · ${MAIL.bounced}`}</strong>}
                </span>
              </button>
            </li>
          ))}
        </ul>
        {chosen && <Opened key={chosen.id} mail={chosen} />}
      </div>
    </section>
  );
}

function Opened({ mail }: { mail: Schema["MailLine"] }) {
  const opened = useQuery(mailQuery(mail.id));
  if (opened.isPending) return <Waiting />;
  if (opened.isError) return <Failed error={opened.error} again={() => void opened.refetch()} />;
  return (
    <article aria-label={mail.subject} className="min-w-0 flex-1 self-start rounded-lg border border-edge bg-paper p-4 max-lg:w-full">
      <h2 className="text-base break-words">{mail.subject}</h2>
      <p className="break-words text-quiet">{`${mail.to}, ${moment(mail.at)}`}</p>
      {mail.why && <p className="mt-2">{`${MAIL.why} ${mail.why}`}</p>}
      {opened.data.text ? <pre className="mt-3 font-sans break-words whitespace-pre-wrap">{opened.data.text}</pre> : <p className="mt-3 text-ink-soft">{MAIL.notKept}</p>}
    </article>
  );
}
