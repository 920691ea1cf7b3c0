import { Dialog } from "radix-ui";
import { useState } from "react";
import { useNavigate } from "react-router";
import { useBeginJob } from "../api/changes";
import { useCatalogue } from "../api/workshop";
import { recipeOptions } from "../book/options";
import { RecipeChip } from "../drawings/Chip";
import { Chooser } from "../parts/Chooser";
import { NumberField } from "../parts/fields";
import { Alert } from "../parts/notices";
import { useQuiet } from "../parts/quiet";
import { sound } from "../parts/sound";

const AMOUNTS_ML = [50, 100, 250, 500, 1000];

/** A mix with no piece: quick pot, the recipe, the amount. The third press mixes. */
export function QuickPot() {
  const [open, setOpen] = useState(false);
  const [recipe, setRecipe] = useState("");
  const [ml, setMl] = useState(150);
  const catalogue = useCatalogue(useQuiet() || open);
  const begin = useBeginJob();
  const navigate = useNavigate();

  function mix(amount: number) {
    begin.mutate(
      { recipe, ml: amount },
      {
        onSuccess: (made) => {
          setOpen(false);
          navigate(`/jobs/${made.id}`);
        },
      },
    );
  }

  return (
    <Dialog.Root
      open={open}
      onOpenChange={(next) => {
        setOpen(next);
        setRecipe("");
        begin.reset();
      }}
    >
      <Dialog.Trigger className="w-14 shrink-0 bg-tape px-1 leading-tight font-bold text-ink sm:w-auto sm:px-5">
        Quick pot
      </Dialog.Trigger>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-10 bg-ink/60" />
        <Dialog.Content
          aria-describedby={undefined}
          className="fixed inset-x-0 top-0 z-20 mx-auto flex max-h-dvh max-w-3xl flex-col overflow-auto border-2 border-t-0 border-ink bg-steel p-5"
        >
          <div className="flex items-start justify-between gap-3">
            <Dialog.Title className="text-xl font-bold">Quick pot</Dialog.Title>
            <Dialog.Close className="press">Close</Dialog.Close>
          </div>
          {recipe === "" ? (
            <>
              <p className="mt-3 mb-2 text-sm font-semibold text-soft">Which mix? Pictures are estimates.</p>
              {catalogue.data && (
                <Chooser
                  label="Which mix?"
                  of="recipe"
                  focused
                  placeholder="glaze, salt wash, milk paint…"
                  options={recipeOptions(catalogue.data)}
                  picture={(o) => (
                    <span className="w-16">
                      <RecipeChip recipe={o.slug} />
                    </span>
                  )}
                  onChoose={setRecipe}
                />
              )}
            </>
          ) : (
            <>
              <h3 className="mt-3 mb-2 text-sm font-semibold text-soft">
                How much {catalogue.data?.recipes.find((r) => r.slug === recipe)?.name.toLowerCase()}?
              </h3>
              <div className="grid grid-cols-2 gap-2 sm:grid-cols-5">
                {AMOUNTS_ML.map((amount) => (
                  <button
                    key={amount}
                    type="button"
                    className="press numeral min-h-[72px] text-xl"
                    onClick={() => mix(amount)}
                  >
                    {amount} <span className="text-sm">ml</span>
                  </button>
                ))}
              </div>
              <div data-asked className="mt-4 flex items-end gap-3">
                <div className="w-40">
                  <NumberField
                    label="Another amount"
                    value={ml}
                    unit="ml"
                    min={1}
                    max={200000}
                    onChange={setMl}
                  />
                </div>
                <button
                  type="button"
                  className="press press-strong"
                  onClick={(e) => sound(e.currentTarget) && mix(ml)}
                >
                  Mix {ml} ml
                </button>
              </div>
              {begin.error && <Alert>{begin.error.message}</Alert>}
            </>
          )}
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
