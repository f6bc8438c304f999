import { quantityOf, type Rig, readFigure, setFigure, typedOf } from "../../../core/rig/index.ts";
import { spell } from "../../ui/amounts.ts";
import { QuantityField } from "../../ui/QuantityField.tsx";
import type { SectionProps } from "./section.ts";

interface RigQuantityProps extends Pick<SectionProps, "edit"> {
  readonly rig: Rig;
  /** The figure's path: "trailer.tyreKpa", "tanks.main.litres". */
  readonly at: string;
  readonly label: string;
  readonly why?: string;
  readonly least: number;
  readonly most: number;
  readonly isOptional?: boolean;
}

/** A figure of the boat sheet with its unit; what is typed stays beside it as it was typed. */
export function RigQuantity({ rig, edit, at, label, why, ...bounds }: RigQuantityProps) {
  return (
    <QuantityField
      label={spell(label)}
      {...(why === undefined ? {} : { why })}
      quantity={quantityOf(at)!}
      value={readFigure(rig, at)}
      typed={typedOf(rig, at)}
      onChange={(value, typed) => edit((now) => setFigure(now, at, value, typed))}
      {...bounds}
    />
  );
}
