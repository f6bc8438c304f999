import { isStandIn, quantityOf, type Rig, readFigure, setFigure, typedOf } from "../../../core/rig/index.ts";
import { spell } from "../../ui/amounts.ts";
import { NumberField } from "../../ui/fields.tsx";
import { QuantityField } from "../../ui/QuantityField.tsx";
import { fieldOf } from "./figureFields.ts";
import type { SectionProps } from "./section.ts";

interface RigFigureProps extends Pick<SectionProps, "edit"> {
  readonly rig: Rig;
  /** The figure's path: "trailer.tyreKpa", "tanks.main.litres". */
  readonly at: string;
  /** Where several of a kind stand below each other: whose it is. */
  readonly of?: string;
}

/**
 * A figure of the boat sheet with its unit; what is typed stays beside it as it was typed. One that stands in until somebody has
 * read it is shown as none.
 */
export function RigFigure({ rig, edit, at, of }: RigFigureProps) {
  const { label: says, why, unit, ...bounds } = fieldOf(at);
  const label = spell(of === undefined ? says : `${of}: ${says.toLowerCase()}`);
  const quantity = quantityOf(at);
  const value = isStandIn(rig, at) ? undefined : readFigure(rig, at);
  const asked = { label, value, ...(why === undefined ? {} : { why: spell(why) }), ...bounds };
  if (quantity !== null)
    return (
      <QuantityField
        {...asked}
        quantity={quantity}
        typed={typedOf(rig, at)}
        onChange={(read, typed) => edit((now) => setFigure(now, at, read, typed))}
      />
    );
  return (
    <NumberField
      {...asked}
      {...(unit === undefined ? {} : { unit })}
      onChange={(read) => (read !== undefined || bounds.isOptional) && edit((now) => setFigure(now, at, read))}
    />
  );
}
