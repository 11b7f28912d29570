/** An item that is shown to students from a day on, with its undo. */
import { useQueryClient } from "@tanstack/react-query";
import { client, data } from "../api/client";
import { Problem } from "../api/problem";
import { useSay } from "../ui/Toasts";

export function useOpenFrom(groupId: number) {
  const queries = useQueryClient();
  const say = useSay();
  return async (item_id: number, day: string) => {
    // The words come with what uses them: nothing of the cupboard is needed before.
    const [{ CUPBOARD }, { fullDay }] = await Promise.all([import("./texts"), import("../ui/dates")]);
    const path = { params: { path: { item_id } } };
    const show = async (shown: { opens: string | null; staff_only: boolean }) => {
      const now = await data(client.GET("/api/cupboard/{item_id}", path));
      const body = { title: now.title, heading: now.heading, html: now.html, link: now.link, periods: now.periods, groups: now.groups, version: now.version, ...shown };
      await data(client.PUT("/api/cupboard/{item_id}", { ...path, body }));
      await queries.invalidateQueries({ queryKey: ["group", groupId] });
      return now;
    };
    const fail = (error: unknown) => say(error instanceof Problem ? `${error.title} ${error.fix}` : String(error));
    await show({ opens: day, staff_only: false })
      .then((before) => {
        const back = () => void show({ opens: before.opens, staff_only: before.staff_only }).then(() => say(CUPBOARD.asBefore(before))).catch(fail);
        say(CUPBOARD.openFrom({ title: before.title, day: fullDay(day) }), back);
      })
      .catch(fail);
  };
}
