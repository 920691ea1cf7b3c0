import type { Operation } from "../api/client";

const SHOWS = new Set(["lay", "part-dry", "wipe back", "sand", "buff"]);

/** Whether an operation changes how a surface looks. */
export const pictured = (o: Operation): boolean => SHOWS.has(o.kind) && o.layer !== "" && o.zone !== "";
