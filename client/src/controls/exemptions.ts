import type { Schemas } from "../api/client";
import type { Option } from "./Choice";

/** Why no tax may be charged to a customer, for choosing. */
export const exemptions: readonly Option<Schemas["ExemptKind"]>[] = [
  ["exempt", "exempt"],
  ["reverseCharge", "owes the tax (reverse charge)"],
  ["outside", "outside the tax"],
];

/** What stands as the reason until somebody writes another. */
export const usualReason = "as the customer has shown";
