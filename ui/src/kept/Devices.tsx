import { useState } from "react";
import { useChangeDevice, useMakeCode, useTurnOut } from "../api/changes";
import type { DeviceLine, OneCode, WorkshopMode } from "../api/client";
import { useWorkshopMode } from "../api/workshop";
import { Failure } from "../parts/Failure";
import { LABEL } from "../parts/notices";
import { when } from "../parts/say";

/** What a browser gives only to pages that came encrypted, or from its own machine. */
const MISSING: [string, boolean][] = [
  ["keep its screen awake", "wakeLock" in navigator],
  ["be told at once which of its pages are still there", Boolean(navigator.locks)],
];

const KINDS = [
  ["looks", "looks only"],
  ["works", "works"],
  ["keeps", "keeps the workshop"],
] as const;

const STAYS = [
  ["day", "for a day"],
  ["month", "for a month"],
  ["always", "until turned out"],
] as const;

type Stay = (typeof STAYS)[number][0];

/** How other devices come in, what each may do, and those that tried. */
export function Devices() {
  const mode = useWorkshopMode();
  const out = useTurnOut();
  const change = useChangeDevice();
  const missing = MISSING.filter(([, there]) => !there).map(([what]) => what);
  if (!mode.data) return null;
  const { open, devices, failed } = mode.data;
  const error = mode.error ?? out.error ?? change.error;
  return (
    <section aria-labelledby="devices" className="mt-6 border-t-2 border-ink pt-3">
      <h2 id="devices" className="text-lg font-bold">
        Other devices
      </h2>
      {open ? <WayIn mode={mode.data} /> : <Closed />}
      {open && missing.length > 0 && (
        <p className="narrow mt-2 text-sm text-soft">
          This device cannot {missing.join(", or ")} here; all else goes on.
        </p>
      )}
      {devices.length > 0 && (
        <p role="status" className="narrow mt-2 text-sm">
          {out.isSuccess
            ? "It is turned out, and the code is another now."
            : "Turning a device out changes the code."}
        </p>
      )}
      <ul className="mt-3">
        {devices.map((device) => (
          <DeviceRow
            key={device.id}
            device={device}
            onOut={() => out.mutate(device.id)}
            onChange={(kind, stay) => change.mutate({ id: device.id, kind, stay })}
          />
        ))}
      </ul>
      {failed.length > 0 && (
        <details className="mt-2 border-t border-line">
          <summary className="narrow inline-flex min-h-11 items-center underline">
            Wrong codes since Lumso was started: the last {failed.length}
          </summary>
          <ul className="narrow text-sm">
            {failed.map((f, n) => (
              <li key={`${f.at}${String(n)}`}>
                {when(f.at)} from {f.whose}
              </li>
            ))}
          </ul>
        </details>
      )}
      {error && <Failure error={error} />}
    </section>
  );
}

function Closed() {
  return (
    <p className="max-w-prose">
      Only this machine reaches Lumso. Started with <code>lumso serve --host 0.0.0.0</code> it can be opened
      from a tablet or a phone in the house, with a code; with <code>--tls</code> nobody reads along.
    </p>
  );
}

function WayIn({ mode }: { mode: WorkshopMode }) {
  const { reach, code, picture, one, encrypted, fingerprint } = mode;
  return (
    <>
      <div className="mt-2 flex flex-wrap gap-6">
        <img src={picture} alt="" className="size-44 border-2 border-ink bg-enamel" />
        <div className="min-w-0 grow basis-72">
          <p>
            On another device open <strong className="wrap-anywhere">{reach}</strong> and give the code, or
            scan the picture. It lets a device look.
          </p>
          <p className="numeral mt-2 text-2xl">{code}</p>
          {!encrypted && (
            <p className="mt-2 border-l-4 border-ink pl-2">
              Not encrypted: code and work cross the network as they are. Started with <code>--tls</code> they
              do not.
            </p>
          )}
          {fingerprint && (
            <p className="mt-2">
              A device trusts this workshop once it holds{" "}
              <a className="underline" href="/api/trust/authority.pem" download>
                its certificate
              </a>
              : install it in the device’s settings, under certificates, and compare its fingerprint with the
              one in the terminal: <span className="narrow text-sm break-all">{fingerprint}</span>
            </p>
          )}
        </div>
      </div>
      <CodeForOne one={one} />
    </>
  );
}

/** A code that lets one device work, for an hour. */
function CodeForOne({ one }: { one: OneCode | null }) {
  const [stay, setStay] = useState<Stay>("always");
  const make = useMakeCode();
  return (
    <div className="mt-3 border-t border-line pt-2">
      <h3 className={LABEL}>A code for one device that works</h3>
      <div className="flex flex-wrap items-center gap-3">
        <label>
          <span className="sr-only">How long the device is let in</span>
          <select className="tape min-h-11" value={stay} onChange={(e) => setStay(e.target.value as Stay)}>
            {STAYS.map(([slug, name]) => (
              <option key={slug} value={slug}>
                {name}
              </option>
            ))}
          </select>
        </label>
        <button type="button" className="press" disabled={make.isPending} onClick={() => make.mutate(stay)}>
          {one ? "Make another" : "Make one"}
        </button>
      </div>
      <div role="status">
        {one && (
          <div className="mt-2 flex flex-wrap items-center gap-6">
            <img src={one.picture} alt="" className="size-32 border-2 border-ink bg-enamel" />
            <p className="min-w-0 grow basis-56">
              <span className="numeral block text-2xl">{one.code}</span>
              <span className="narrow block text-sm">
                For one device, once, until {when(one.until)}. It works then,{" "}
                {STAYS.find(([slug]) => slug === one.stay)?.[1]}.
              </span>
            </p>
          </div>
        )}
      </div>
      {make.error && <Failure error={make.error} />}
    </div>
  );
}

interface RowProps {
  device: DeviceLine;
  onOut: () => void;
  onChange: (kind: DeviceLine["kind"], stay: Stay | null) => void;
}

function DeviceRow({ device, onOut, onChange }: RowProps) {
  const until = device.until ? `until ${when(device.until)}` : "until turned out";
  return (
    <li className="flex flex-wrap items-center gap-3 border-t border-line py-2">
      <span className="min-w-0 grow basis-56">
        <span className="bg-tape px-2 py-0.5 font-semibold break-words">{device.name}</span>
        {device.this && " this one"}
        <span className="narrow block text-sm text-soft">
          entered {when(device.entered_at)}, last here {when(device.seen_at)}
        </span>
        {device.lapsed && (
          <span className="block font-semibold">
            Its time is over. What it has not sent yet waits on it until it is let in again.
          </span>
        )}
      </span>
      <label>
        <span className="sr-only">What {device.name} may do</span>
        <select
          className="tape min-h-11"
          value={device.kind}
          onChange={(e) => onChange(e.target.value as DeviceLine["kind"], null)}
        >
          {KINDS.map(([slug, name]) => (
            <option key={slug} value={slug}>
              {name}
            </option>
          ))}
        </select>
      </label>
      <label>
        <span className="sr-only">How long {device.name} is let in</span>
        <select
          className="tape min-h-11"
          value=""
          onChange={(e) => onChange(device.kind, e.target.value as Stay)}
        >
          <option value="" disabled>
            {until}
          </option>
          {STAYS.map(([slug, name]) => (
            <option key={slug} value={slug}>
              {slug === "always" ? name : `${name} from now`}
            </option>
          ))}
        </select>
      </label>
      <button type="button" className="press" aria-label={`Turn out ${device.name}`} onClick={onOut}>
        Turn out
      </button>
    </li>
  );
}
