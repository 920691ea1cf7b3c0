import { Popover } from "radix-ui";
import { useId, useState } from "react";
import { Chooser, type ChooserProps } from "./Chooser";
import type { Option } from "./finding";
import { LABEL } from "./notices";

interface ChooserFieldProps<O extends Option> extends ChooserProps<O> {
  value: string;
  /** What stands there while nothing is chosen. */
  empty?: string;
}

/** The one that is chosen, as a strip of tape; pressed, the list to choose another from. */
export function ChooserField<O extends Option>(props: ChooserFieldProps<O>) {
  const { label, options, value, picture, empty = "", onChoose, otherwise } = props;
  const [open, setOpen] = useState(false);
  const id = useId();
  const now = options.find((o) => o.slug === value);
  const shown = now?.name ?? (value || empty);
  return (
    <div className="min-w-0">
      <span id={id} className={LABEL}>
        {label}
      </span>
      <Popover.Root open={open} onOpenChange={setOpen}>
        <Popover.Trigger
          aria-label={`${label}: ${shown}`}
          className="tape flex w-full items-center gap-2 text-left font-semibold"
        >
          {now && picture && <span className="w-8 shrink-0">{picture(now)}</span>}
          <span className="min-w-0 grow first-letter:uppercase">{shown}</span>
          <span aria-hidden className="print:hidden">
            ▾
          </span>
        </Popover.Trigger>
        <Popover.Portal>
          <Popover.Content
            align="start"
            collisionPadding={8}
            aria-label={label}
            className="z-30 flex max-h-[min(32rem,var(--radix-popover-content-available-height))] w-[min(28rem,95vw)] flex-col border-2 border-ink bg-enamel p-2"
          >
            <Chooser
              {...props}
              focused
              {...(otherwise && {
                otherwise: {
                  says: otherwise.says,
                  take: (typed: string) => {
                    setOpen(false);
                    otherwise.take(typed);
                  },
                },
              })}
              onChoose={(slug) => {
                setOpen(false);
                if (slug !== value) onChoose(slug);
              }}
            />
          </Popover.Content>
        </Popover.Portal>
      </Popover.Root>
    </div>
  );
}
