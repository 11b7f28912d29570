/** Where the code on a sign-in card leads: it signs the student in and forgets the secret at once. */
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useEffect, useRef, useState } from "react";
import { Link, useNavigate } from "react-router";
import { client, data } from "../api/client";
import { setConnection } from "../api/connection";
import { Problem } from "../api/problem";
import { sessionQuery } from "../api/queries";
import { Button } from "../ui/Button";
import { Notice } from "../ui/Notice";
import { Mark } from "./Mark";
import { forgetPeople } from "../api/session";
import { CARD, DIALOGS } from "./dialogTexts";

export function CardView() {
  const [secret] = useState(() => window.location.hash.slice(1));
  const asked = useRef(false);
  const queries = useQueryClient();
  const navigate = useNavigate();
  const enter = useMutation({
    mutationFn: async (instead: boolean) => {
      // The first answer brings the token that a sign-in needs.
      await data(client.GET("/api/session"));
      return data(client.POST("/api/session/card", { body: { secret, instead } }));
    },
    onSuccess: async (session) => {
      forgetPeople(queries);
      queries.setQueryData(sessionQuery.queryKey, session);
      setConnection("there");
      await navigate("/", { replace: true });
    },
  });
  useEffect(() => {
    if (asked.current) return;
    asked.current = true;
    window.history.replaceState(null, "", "/card");
    enter.mutate(false);
  }, [enter]);
  const running = enter.error instanceof Problem && typeof enter.error.more.signed_in === "string" ? enter.error.more.signed_in : "";
  return (
    <main className="mx-auto flex min-h-dvh max-w-md flex-col items-center justify-center gap-4 p-6 text-center text-base">
      <Mark />
      {running ? (
        <>
          <Notice look="info" title={`${running} ${CARD.running}.`} fix={CARD.ask} />
          <div className="flex flex-wrap justify-center gap-2">
            <Button look="main" big disabled={enter.isPending} onClick={() => enter.mutate(true)}>
              {CARD.go}
            </Button>
            <Link to="/" replace className="inline-flex min-h-11 items-center rounded-md border border-edge bg-paper px-4 font-semibold hover:border-control">
              {CARD.stay}
            </Link>
          </div>
        </>
      ) : enter.error ? (
        <>
          <Notice title={enter.error instanceof Problem ? enter.error.title : DIALOGS.thisCardCouldNotBe} fix={enter.error instanceof Problem ? enter.error.fix : DIALOGS.tryAgain} />
          <Link to="/" className="min-h-11 text-in underline">
            {DIALOGS.signInByName}
          </Link>
        </>
      ) : (
        <p role="status">{DIALOGS.oneMoment}</p>
      )}
    </main>
  );
}
