namespace Emendum.Core.Quantities;

/// <summary>A number with the unit it was entered or computed in.</summary>
public readonly record struct Quantity(decimal Value, Unit Unit)
{
    /// <summary>The same quantity in another unit of its kind; multiplied first, divided last.</summary>
    /// <exception cref="RefusedException">The kinds differ.</exception>
    public Quantity In(Unit unit) =>
        unit.Kind == Unit.Kind
            ? unit == Unit
                ? this
                : new(Value * Unit.Factor / unit.Factor, unit)
            : throw RefusedException.Of(
                "unit",
                $"{Unit} is a {Unit.Kind.ToString().ToLowerInvariant()} and {unit} a {unit.Kind.ToString().ToLowerInvariant()}: they cannot be combined."
            );

    /// <summary>Sum in the left side's unit.</summary>
    /// <exception cref="RefusedException">The kinds differ (metres and square feet).</exception>
    public static Quantity operator +(Quantity a, Quantity b) => new(a.Value + b.In(a.Unit).Value, a.Unit);
}
