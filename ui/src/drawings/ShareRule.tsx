import { Slider } from "radix-ui";
import type { DialLimit } from "../api/client";
import { LABEL } from "../parts/notices";
import { percent } from "../parts/say";

interface ShareRuleProps {
  name: string;
  share: number;
  limits: DialLimit[];
  onChange: (share: number) => void;
}

/** A share of the whole on a steel rule: its allowed stretch clear, the rest hatched. */
export function ShareRule({ name, share, limits, onChange }: ShareRuleProps) {
  const least = Math.max(0, ...limits.map((l) => l.least));
  const most = Math.min(1, ...limits.map((l) => l.most));
  const step = (by: number) => onChange(Math.min(0.95, Math.max(0, Math.round((share + by) * 100) / 100)));
  const hatch = "repeating-linear-gradient(135deg, var(--color-soft) 0 2px, transparent 2px 8px)";
  return (
    <div>
      <div className="flex items-end justify-between">
        <span className={LABEL}>{name}, share of the whole as poured</span>
        <output className="numeral text-xl">{percent(share)}</output>
      </div>
      <div className="mt-1 flex items-stretch gap-2">
        <button
          type="button"
          className="press text-lg"
          aria-label={`${name}: 1 % less`}
          onClick={() => step(-0.01)}
        >
          −
        </button>
        <Slider.Root
          className="relative flex h-[72px] grow touch-none items-start border-2 border-ink bg-enamel select-none"
          min={0}
          max={100}
          step={1}
          value={[Math.round(share * 100)]}
          onValueChange={([value]) => onChange(Math.min(95, value ?? 0) / 100)}
        >
          <Slider.Track className="relative h-full w-full">
            <span
              aria-hidden
              className="absolute inset-y-0 left-0"
              style={{ width: `${least * 100}%`, background: hatch }}
            />
            <span
              aria-hidden
              className="absolute inset-y-0 right-0"
              style={{ width: `${(1 - most) * 100}%`, background: hatch }}
            />
            <svg
              aria-hidden
              viewBox="0 0 1000 72"
              preserveAspectRatio="none"
              className="absolute inset-0 h-full w-full"
            >
              {Array.from({ length: 99 }, (_, i) => i + 1).map((p) => (
                <path
                  key={p}
                  d={`M${p * 10} 72v${p % 10 === 0 ? -26 : p % 5 === 0 ? -18 : -10}`}
                  stroke="var(--color-ink)"
                  strokeWidth={p % 10 === 0 ? 2 : 1}
                  vectorEffect="non-scaling-stroke"
                />
              ))}
            </svg>
            {[20, 40, 60, 80].map((p) => (
              <span
                aria-hidden
                key={p}
                className="narrow absolute bottom-[27px] -translate-x-1/2 bg-enamel px-0.5 text-xs font-semibold"
                style={{ left: `${p}%` }}
              >
                {p}
              </span>
            ))}
          </Slider.Track>
          {/* The thumb itself has no width, so that its pointer stands exactly on the rule. */}
          <Slider.Thumb
            className="relative block h-[72px] w-px cursor-grab outline-none [&:focus-visible>svg]:outline-3 [&:focus-visible>svg]:outline-ink"
            aria-label={`${name}, share of the whole in percent`}
          >
            <svg
              aria-hidden
              viewBox="0 0 44 72"
              className="absolute top-0 -left-[22px] h-[72px] w-11 max-w-none"
            >
              <path d="M8 0H36V18L22 34L8 18Z" fill="var(--color-ink)" />
              <path d="M22 30V72" stroke="var(--color-ink)" strokeWidth="3" />
            </svg>
          </Slider.Thumb>
        </Slider.Root>
        <button
          type="button"
          className="press text-lg"
          aria-label={`${name}: 1 % more`}
          onClick={() => step(0.01)}
        >
          +
        </button>
      </div>
      {limits.map((limit) => (
        <p
          key={limit.reason}
          className={`narrow mt-1.5 border-l-4 pl-2 text-sm ${limit.crossed ? "border-ink font-semibold" : "border-line text-soft"}`}
        >
          {limit.crossed ? "Over the line. " : ""}
          Here {percent(limit.least)} to {percent(limit.most)}. {limit.reason}
        </p>
      ))}
    </div>
  );
}
