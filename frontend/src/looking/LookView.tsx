/** One pocket of everybody beside each other: who has begun, and with what. */
import { useQuery } from "@tanstack/react-query";
import { lazy, Suspense, useMemo } from "react";
import { Link, useNavigate, useParams, useSearchParams } from "react-router";
import type { Schema } from "../api/client";
import { gridQuery, templateQuery } from "../api/queries";
import { patiently } from "../api/patiently";
import { useGroupId } from "../api/session";
import { Thumbnail } from "../viewer/Artefact";
import { moment } from "../ui/dates";
import { PegPicture } from "../ui/people/PegPicture";
import { Select } from "../ui/Select";
import { Failed, Waiting } from "../ui/Waiting";
import { listed } from "../ui/words";
import { LOOKING, ROWS, TEXTS } from "./texts";
import { COUNTED } from "../ui/texts";

// Few logs are looked at in one.
const ClassLog = lazy(() => patiently(() => import("./ClassLog")).then((view) => ({ default: view.ClassLog })));

type Student = Schema["PocketOfStudent"];

/** Without a pocket in the address, the first of the template. */
export function LookView() {
  const groupId = useGroupId();
  const { pocket } = useParams();
  const template = useQuery({ ...templateQuery(groupId), enabled: !pocket });
  const first = template.data?.sections.flatMap((one) => (one.repeats ? [] : one.pockets)).find((one) => !one.retired)?.id;
  const id = pocket ? Number(pocket) : first;
  if (!pocket && template.isPending) return <Waiting />;
  if (id === undefined) {
    return (
      <div className="p-8">
        <h1 className="text-xl">{LOOKING.noPocket}</h1>
        <p>{LOOKING.noPocketHint}</p>
      </div>
    );
  }
  return <Grid groupId={groupId} pocketId={id} />;
}

function Grid({ groupId, pocketId }: { groupId: number; pocketId: number }) {
  const navigate = useNavigate();
  const [search, setSearch] = useSearchParams();
  const grid = useQuery(gridQuery(groupId, pocketId));
  const byWork = search.get("order") === "work";
  const students = useMemo(() => {
    const all = grid.data?.students ?? [];
    return byWork ? [...all].sort((a, b) => (b.last_work ?? "").localeCompare(a.last_work ?? "")) : all;
  }, [byWork, grid.data]);
  if (grid.isPending) return <Waiting />;
  if (grid.isError) return <Failed error={grid.error} again={() => void grid.refetch()} />;
  const { pockets } = grid.data;
  const isLog = grid.data.kind === "log";
  const rows = isLog && search.get("rows") === "1";
  const begun = students.filter((one) => one.begun).length;
  const full = students.filter((one) => one.wanted > 0 && one.met >= one.wanted).length;
  return (
    <div className="flex min-h-0 flex-1 flex-col gap-4 overflow-y-auto p-5">
      <header className="flex flex-wrap items-center gap-x-6 gap-y-2">
        <h1 className="text-xl">{LOOKING.title}</h1>
        <Select
          label={LOOKING.pocket}
          value={String(pocketId)}
          options={pockets.map((one) => ({ value: String(one.id), shown: one.title }))}
          onChange={(id) => void navigate(`/g/${groupId}/look/${id}${byWork ? "?order=work" : ""}`)}
        />
        {isLog && (
          <Select
            label={ROWS.show}
            value={rows ? "rows" : "each"}
            options={[
              { value: "each", shown: ROWS.each },
              { value: "rows", shown: ROWS.all },
            ]}
            onChange={(show) => setSearch(show === "rows" ? { rows: "1" } : {})}
          />
        )}
        {!rows && (
          <Select
            label={LOOKING.order}
            value={byWork ? "work" : "name"}
            options={[
              { value: "name", shown: LOOKING.byName },
              { value: "work", shown: LOOKING.byWork },
            ]}
            onChange={(order) => setSearch(order === "work" ? { order } : {}, { replace: true })}
          />
        )}
        <p className="figures text-ink-soft">
          {TEXTS.begunOfAll({ begun, count: students.length, full })}
        </p>
      </header>
      {students.length === 0 && <p>{LOOKING.noStudent}</p>}
      {rows ? (
        <Suspense fallback={<Waiting />}>
          <ClassLog key={pocketId} groupId={groupId} pocketId={pocketId} periods={periodsOf(students)} />
        </Suspense>
      ) : (
        <ul className="grid grid-cols-[repeat(auto-fill,minmax(8.6rem,1fr))] gap-2.5">
          {students.map((one) => (
            <Card key={one.id} student={one} kind={grid.data.kind} to={`/g/${groupId}/portfolio/${one.portfolio}/${pocketId}`} />
          ))}
        </ul>
      )}
    </div>
  );
}

function periodsOf(students: Student[]): string[] {
  return [...new Set(students.map((one) => one.period))].filter(Boolean).sort();
}

/** What is in it, in numbers. */
function amount(student: Student, kind: string): string {
  if (!student.begun) return LOOKING.empty;
  const units = student.wanted > 0 ? TEXTS.metOfWanted({ met: student.met, wanted: student.wanted }) : "";
  const what = kind === "log" ? COUNTED.rows({ count: student.rows }) : kind === "links" || student.words === 0 ? COUNTED.artefacts({ count: student.artefacts }) : COUNTED.words({ count: student.words });
  return units ? `${units} · ${what}` : what;
}

function Card({ student, kind, to }: { student: Student; kind: string; to: string }) {
  const share = student.wanted > 0 ? Math.min(student.met / student.wanted, 1) : 0;
  return (
    <li>
      <Link to={to} className={`flex h-full flex-col overflow-hidden rounded-lg border bg-paper hover:border-control ${student.begun ? "border-edge" : "border-dashed border-control"}`}>
        {student.artefact ? (
          <Thumbnail artefact={student.artefact} small />
        ) : (
          <span className="flex h-20 items-start bg-today p-2">
            <span className="line-clamp-3 text-sm break-words text-ink-soft">{student.text}</span>
          </span>
        )}
        <span aria-hidden className="block h-1.5 bg-line">
          <span className={`block h-full ${share >= 1 ? "bg-accepted" : "bg-in"}`} style={{ width: `${share * 100}%` }} />
        </span>
        <span className="block p-2 pt-1.5">
          <span className="flex items-center gap-1.5">
            <PegPicture picture={student.picture} tint={student.tint} size={18} />
            <span className="truncate font-semibold" title={listed(student)}>
              {listed(student)}
            </span>
          </span>
          <span className="figures block text-sm break-words text-ink-soft">{amount(student, kind)}</span>
          <span className="block text-sm text-quiet">{student.last_work ? moment(student.last_work) : "\u00a0"}</span>
        </span>
      </Link>
    </li>
  );
}
