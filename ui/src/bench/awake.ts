import { useEffect, useState } from "react";

/** Keep the screen awake while this is shown; says how else where the browser cannot. */
export function useAwake(): string {
  const [says, setSays] = useState("");
  useEffect(() => {
    let lock: WakeLockSentinel | null = null;
    let over = false;
    const hold = async () => {
      if (!("wakeLock" in navigator)) {
        setSays(
          window.isSecureContext
            ? "This browser lets the screen go dark. Set the tablet itself to stay on."
            : "Over plain http the screen goes dark by itself. Set the tablet to stay on, or serve with --tls.",
        );
        return;
      }
      try {
        lock = await navigator.wakeLock.request("screen");
        setSays("");
        if (over) void lock.release();
      } catch {
        setSays("The screen may go dark: the device saves power. Set it to stay on.");
      }
    };
    const back = () => document.visibilityState === "visible" && void hold();
    void hold();
    document.addEventListener("visibilitychange", back);
    return () => {
      over = true;
      document.removeEventListener("visibilitychange", back);
      void lock?.release();
    };
  }, []);
  return says;
}
