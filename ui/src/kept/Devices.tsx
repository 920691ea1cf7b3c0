import { useTurnOut } from "../api/changes";
import { useWorkshopMode } from "../api/workshop";
import { Failure } from "../parts/Failure";
import { when } from "../parts/say";

/** What a browser gives only to pages that came encrypted, or from its own machine. */
const MISSING: [string, boolean][] = [
  ["keep its screen awake", "wakeLock" in navigator],
  ["be told at once which of its pages are still there", Boolean(navigator.locks)],
];

/** How other devices come in, and those that did. */
export function Devices() {
  const mode = useWorkshopMode();
  const out = useTurnOut();
  const missing = MISSING.filter(([, there]) => !there).map(([what]) => what);
  if (!mode.data) return null;
  const { open, reach, code, picture, encrypted, fingerprint, devices } = mode.data;
  return (
    <section aria-labelledby="devices" className="mt-6 border-t-2 border-ink pt-3">
      <h2 id="devices" className="text-lg font-bold">
        Other devices
      </h2>
      {!open && (
        <p className="max-w-prose">
          Only this machine reaches Lumso. Started with <code>lumso serve --host 0.0.0.0</code> it can be
          opened from a tablet or a phone in the house, with a code; with <code>--tls</code> nobody reads
          along.
        </p>
      )}
      {open && (
        <div className="mt-2 flex flex-wrap gap-6">
          {picture && <img src={picture} alt="" className="size-44 border-2 border-ink bg-enamel" />}
          <div className="min-w-0 grow basis-72">
            <p>
              On another device open <strong className="break-all">{reach}</strong>
              {code ? " and give the code, or scan the picture." : " and give the code."}
            </p>
            {code ? (
              <p className="numeral mt-2 text-2xl">{code}</p>
            ) : (
              <p className="text-soft">The code is told only where Lumso runs.</p>
            )}
            {!encrypted && (
              <p className="mt-2 border-l-4 border-ink pl-2">
                Not encrypted: code and work cross the network as they are. Started with <code>--tls</code>{" "}
                they do not.
              </p>
            )}
            {fingerprint && (
              <p className="mt-2">
                A device trusts this workshop once it holds{" "}
                <a className="underline" href="/api/trust/authority.pem" download>
                  its certificate
                </a>
                : install it in the device’s settings, under certificates, and compare its fingerprint with
                the one in the terminal: <span className="narrow text-sm break-all">{fingerprint}</span>
              </p>
            )}
          </div>
        </div>
      )}
      {open && missing.length > 0 && (
        <p className="narrow mt-2 text-sm text-soft">
          This device cannot {missing.join(", or ")} here; all else goes on.
        </p>
      )}
      {devices.length > 0 && (
        <p role="status" className="narrow mt-2 text-sm">
          {out.isSuccess
            ? `It is turned out, and the code is another now${code ? "." : ": it stands where Lumso runs."}`
            : "Turning a device out changes the code."}
        </p>
      )}
      <ul className="mt-3">
        {devices.map((device) => (
          <li key={device.id} className="flex flex-wrap items-center gap-3 border-t border-line py-2">
            <span className="min-w-0 grow">
              <span className="bg-tape px-2 py-0.5 font-semibold">{device.name}</span>
              {device.this && " this one"}
              <span className="narrow block text-sm text-soft">
                entered {when(device.entered_at)}, last here {when(device.seen_at)}
              </span>
            </span>
            <button
              type="button"
              className="press"
              aria-label={`Turn out ${device.name}`}
              onClick={() => out.mutate(device.id)}
            >
              Turn out
            </button>
          </li>
        ))}
      </ul>
      {(mode.error ?? out.error) && <Failure error={(mode.error ?? out.error) as Error} />}
    </section>
  );
}
