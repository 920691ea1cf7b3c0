import { Popover } from "radix-ui";
import type { ReactNode } from "react";
import type { Figure } from "../api/client";
import { amount, say } from "./say";

const said = ({ value, unit }: { value: number; unit: string }) => {
  if (unit !== "ml") return `${say(value)} ${unit}`;
  const poured = amount(value, unit);
  return `${poured.value} ${poured.unit}`;
};

/** A number that can be opened to the chain that made it. */
export function Why({ figure, name, children }: { figure: Figure; name: string; children: ReactNode }) {
  return (
    <Popover.Root>
      <Popover.Trigger
        className="inline-flex min-h-11 items-baseline gap-1 border-b-2 border-dotted border-soft text-left hover:border-solid hover:border-ink"
        aria-label={`${name}: ${said(figure)}. Show why`}
      >
        {children}
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          sideOffset={6}
          collisionPadding={12}
          aria-label={`Why ${said(figure)}`}
          className="z-20 max-h-[var(--radix-popover-content-available-height)] w-[min(28rem,calc(100vw-24px))] overflow-auto border-2 border-ink bg-enamel p-4"
        >
          <h3 className="wide mb-2 text-sm font-bold">Why {said(figure)}</h3>
          <ol className="border-l-2 border-ink">
            {figure.steps.map((step, i) => (
              // biome-ignore lint/suspicious/noArrayIndexKey: the chain is in a fixed order
              <li key={i} className="relative grid grid-cols-[1fr_auto] gap-x-3 py-1.5 pl-4 text-sm">
                <span aria-hidden className="absolute top-4 left-0 h-0.5 w-2.5 bg-ink" />
                <span className="font-semibold">{step.name}</span>
                <span className="numeral text-right text-base">
                  {say(step.value)} <span className="text-xs font-medium">{step.unit}</span>
                </span>
                <span className="narrow text-soft">{step.how}</span>
                <span className="narrow text-right text-xs text-soft">{step.source}</span>
                {step.note && <span className="narrow col-span-2 text-xs text-soft">{step.note}</span>}
              </li>
            ))}
          </ol>
          <Popover.Close className="press mt-3 w-full">Close</Popover.Close>
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
