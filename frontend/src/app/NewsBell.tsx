/** What is new to whoever is signed in: the bell; its list comes when somebody nears it. */
import { useQuery } from "@tanstack/react-query";
import { Bell } from "lucide-react";
import { patiently } from "../api/patiently";
import { noticesQuery } from "../api/queries";
import { Later } from "../ui/OnFirstUse";
import { TEXTS } from "./texts";

const load = () => patiently(() => import("./NewsPanel")).then((found) => found.NewsPanel);

export function NewsBell() {
  const news = useQuery(noticesQuery);
  const unseen = news.data?.unseen ?? 0;
  const face = {
    label: unseen > 0 ? TEXTS.titleUnseenNew({ title: TEXTS.news, unseen }) : TEXTS.news,
    className: "relative flex size-11 items-center justify-center rounded-md hover:bg-bar-soft",
    content: (
      <>
        <Bell aria-hidden size={20} />
        {unseen > 0 && <span aria-hidden className="figures absolute top-1 right-0.5 rounded-full bg-brass px-1.5 text-xs leading-4 font-bold text-brass-ink">{unseen}</span>}
      </>
    ),
  };
  return <Later kind="Panel" load={load} face={face} />;
}
