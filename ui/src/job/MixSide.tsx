import type { Catalogue } from "../api/client";
import { MixColumn } from "./MixColumn";
import { PotColumn } from "./PotColumn";
import type { OpenJob } from "./useJob";

interface MixSideProps {
  open: OpenJob;
  catalogue: Catalogue;
  zone: number;
  layer: number;
  onLayer: (index: number) => void;
}

/** A layer as a mix: what goes into it and how it goes on, and the pot it makes. */
export function MixSide(props: MixSideProps) {
  return (
    <>
      <MixColumn {...props} />
      <PotColumn {...props} />
    </>
  );
}
