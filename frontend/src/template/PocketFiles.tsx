/** Pictures and files that are given with a pocket, beside its directions or as a starter. */
import { GivenField } from "../viewer/GivenField";
import { useGiving } from "./giving";
import type { Given } from "./giving";
import type { Laid } from "./texts";
import type { TemplateDraft } from "./useTemplateDraft";

interface Props {
  /** As it would stand. */
  pocket: Laid;
  draft: TemplateDraft;
  groupId: number;
  may: boolean;
  /** What the files are for. */
  use: Given["role"];
  title: string;
  hint: string;
  /** The key of the version that has them; none: everybody has them. */
  version?: string;
}

export function PocketFiles({ pocket, draft, groupId, use, version = "", ...rest }: Props) {
  const giving = useGiving(groupId, pocket.id, draft);
  const files = pocket.files.filter((one) => one.role === use && one.version === version);
  return <GivenField files={files} onGive={(file) => giving.give(file, use, version)} onTakeAway={giving.takeAway} error={giving.error} {...rest} />;
}
