import type { ReactNode } from "react";

/** What stands over a field or a group of them. */
export const LABEL = "narrow block text-sm font-semibold text-soft";

/** Something that is wrong, said where it is, and read out. `quiet` for what is said beside other things. */
export function Alert({ children, quiet = false }: { children: ReactNode; quiet?: boolean }) {
  return (
    <div role="alert" className={`border-l-4 border-ink pl-2 ${quiet ? "text-sm" : "font-semibold"}`}>
      {children}
    </div>
  );
}

/** Something that cannot be used, with what is allowed. */
export function Fault({ says, allowed, quiet }: { says: string; allowed: string; quiet?: boolean }) {
  return (
    <Alert {...(quiet && { quiet })}>
      {quiet ? <strong>{says}</strong> : says}{" "}
      {allowed && <span className="font-normal">Allowed: {allowed}.</span>}
    </Alert>
  );
}

/** A remark of the rules: what, and why. */
export function Remark({ says, reason }: { says: string; reason: string }) {
  return (
    <p className="narrow border-l-4 border-soft pl-2 text-sm">
      <strong>{says}</strong> {reason}
    </p>
  );
}

/** Cautions, in full; and those given before, in few words. */
export function TakeCare({ texts, again = [] }: { texts: string[]; again?: string[] }) {
  if (!texts.length && !again.length) return null;
  return (
    <ul aria-label="Take care" className="my-1.5 text-sm">
      {texts.map((text) => (
        <li key={text} className="said mb-1 py-0.5">
          <strong>Take care.</strong> {text}
        </li>
      ))}
      {again.map((text) => (
        <li key={text} className="border-l-2 border-ink pl-2">
          <strong>As before:</strong> {text}.
        </li>
      ))}
    </ul>
  );
}

/** Something is on its way. */
export function Loading({ children }: { children: ReactNode }) {
  return (
    <p role="status" className="p-4 text-soft">
      {children}
    </p>
  );
}

/** A term and what it is, in a list of them. */
export function Term({ name, children }: { name: string; children: ReactNode }) {
  return (
    <>
      <dt className="narrow text-sm font-semibold text-soft">{name}</dt>
      <dd>{children}</dd>
    </>
  );
}

/** Buttons in a row that belong together, edge to edge. */
export function Row({ children }: { children: ReactNode }) {
  return <div className="flex flex-wrap pt-0.5 pl-0.5 [&>*]:-mt-0.5 [&>*]:-ml-0.5">{children}</div>;
}
