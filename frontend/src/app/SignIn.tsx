/** Signing in; in the demo, as anybody of its world by one press. */
import { useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { useForm } from "react-hook-form";
import { client, data } from "../api/client";
import { setConnection } from "../api/connection";
import { Problem } from "../api/problem";
import { sessionQuery } from "../api/queries";
import { Button } from "../ui/Button";
import { Notice } from "../ui/Notice";
import { ConnectionBar } from "./ConnectionBar";
import { Mark } from "./Mark";
import { forgetPeople } from "../api/session";
import type { Session } from "../api/session";
import { DIALOGS } from "./dialogTexts";
import { TEXTS } from "./texts";

interface Fields {
  username: string;
  password: string;
}

const FIELD = "mt-1 min-h-11 w-full rounded-md border border-control bg-paper px-3 text-base";

/** ``lost`` says that the person was signed out in the middle of something. */
export function SignIn({ session, lost }: { session: Session; lost: boolean }) {
  const queries = useQueryClient();
  const form = useForm<Fields>({ defaultValues: { username: "", password: "" } });
  const [problem, setProblem] = useState<Problem | null>(null);

  const missing = (name: keyof Fields) => (form.formState.errors[name] ? { "aria-invalid": true, "aria-describedby": `${name}-missing` } : {});
  const enter = async (body: Fields) => {
    setProblem(null);
    try {
      const before = session.person?.id;
      const found = await data(client.POST("/api/session", { body }));
      // Another person on the same device starts with nothing of the last one's.
      if (before !== found.person?.id) forgetPeople(queries);
      queries.setQueryData(sessionQuery.queryKey, found);
      setConnection("there");
      await queries.invalidateQueries({ queryKey: ["group"] });
    } catch (error) {
      setProblem(error instanceof Problem ? error : null);
    }
  };

  return (
    <div className="flex min-h-dvh flex-col">
      <ConnectionBar />
      <main className="mx-auto flex w-full max-w-4xl flex-1 flex-wrap items-start justify-center gap-x-16 gap-y-8 px-5 py-12">
        <div className="w-full max-w-sm">
          <h1 className="flex items-center gap-3 text-3xl">
            <Mark size={44} />
            {TEXTS.name}
          </h1>
          <p className="mt-1 mb-6 text-base text-ink-soft">{session.school}</p>
          {lost && (
            <div className="mb-4">
              <Notice look="info" title={DIALOGS.signedOut} />
            </div>
          )}
          <form onSubmit={(event) => void form.handleSubmit(enter)(event)} className="flex flex-col gap-4" noValidate>
            <div>
              <label className="font-semibold">
                {DIALOGS.userName}
                <input
                  {...form.register("username", { validate: (text) => text.trim() !== "" || DIALOGS.noUserName })}
                  {...missing("username")}
                  className={FIELD}
                  autoComplete="username"
                  autoCapitalize="none"
                  spellCheck={false}
                />
              </label>
              <Missing id="username-missing" said={form.formState.errors.username?.message} />
            </div>
            <div>
              <label className="font-semibold">
                {DIALOGS.password}
                <input
                  {...form.register("password", { required: DIALOGS.noPassword })}
                  {...missing("password")}
                  type="password"
                  className={FIELD}
                  autoComplete="current-password"
                />
              </label>
              <Missing id="password-missing" said={form.formState.errors.password?.message} />
            </div>
            {problem && <Notice title={problem.title} fix={problem.fix} />}
            <Button look="main" big type="submit" disabled={form.formState.isSubmitting}>
              {DIALOGS.signIn}
            </Button>
            <p className="text-ink-soft">{DIALOGS.students}</p>
            <p className="text-ink-soft">{DIALOGS.newPassword}</p>
          </form>
        </div>
        {session.demo.length > 0 && (
          <section aria-labelledby="demo" className="w-full max-w-sm">
            <h2 id="demo" className="text-lg">
              {DIALOGS.demo}
            </h2>
            <p className="mt-1 mb-3 text-ink-soft">{DIALOGS.demoHint}</p>
            <ul className="divide-y divide-line overflow-hidden rounded-lg border border-edge bg-paper">
              {session.demo.map((one) => (
                <li key={one.username}>
                  <button
                    type="button"
                    className="flex min-h-11 w-full flex-wrap content-center items-baseline gap-x-3 px-4 py-2 text-left hover:bg-today"
                    onClick={() => void enter(one)}
                  >
                    <span className="font-semibold">{one.name}</span>
                    <span className="text-quiet">{one.what}</span>
                  </button>
                </li>
              ))}
            </ul>
          </section>
        )}
      </main>
    </div>
  );
}

function Missing({ id, said }: { id: string; said: string | undefined }) {
  if (!said) return null;
  return (
    <p id={id} role="alert" className="mt-1 text-overdue">
      {said}
    </p>
  );
}
