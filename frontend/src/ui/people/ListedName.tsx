/** A name in a list: the family name stands out, because that is what people look for. */
export function ListedName({ person }: { person: { family_name: string; given_name: string; family_first?: boolean } }) {
  if (!person.family_name) return <span className="font-bold">{person.given_name}</span>;
  return (
    <>
      <span className="font-bold">{person.family_name}</span>
      {person.family_first ? " " : ", "}
      {person.given_name}
    </>
  );
}
