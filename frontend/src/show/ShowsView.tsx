/** The show pages that are open to the class. */
import { useQuery } from "@tanstack/react-query";
import { showsQuery } from "../api/queries";
import { useGroupId } from "../api/session";
import { Failed, Waiting } from "../ui/Waiting";
import { ShowBoard } from "./ShowBoard";
import { SHOW } from "./texts";

export function ShowsView() {
  const groupId = useGroupId();
  const shows = useQuery(showsQuery(groupId));
  if (shows.isPending) return <Waiting />;
  if (shows.isError) return <Failed error={shows.error} again={() => void shows.refetch()} />;
  return (
    // What scrolls is reached by the keyboard, even where nothing in it can be pressed.
    // eslint-disable-next-line jsx-a11y/no-noninteractive-tabindex
    <section aria-label={SHOW.title} tabIndex={0} className="min-h-0 flex-1 overflow-y-auto low:overflow-visible">
      <div className="mx-auto flex w-full max-w-4xl flex-col gap-5 p-6 max-sm:p-4">
        <h1 className="text-2xl">{SHOW.title}</h1>
        {shows.data.length === 0 && (
          <div className="text-base">
            <h2 className="text-lg">{SHOW.none}</h2>
            <p className="text-ink-soft">{SHOW.noneHint}</p>
          </div>
        )}
        {shows.data.map((one) => (
          <ShowBoard key={one.portfolio} show={one} />
        ))}
      </div>
    </section>
  );
}
