using System.Collections.Immutable;
using Emendum.Core.Book;
using Emendum.Core.Quantities;

namespace Emendum.Core.Delivery;

/// <summary>The labour of an assembly as it was when hours were allowed by it, in a line of text, so that later versions of the assembly can be held against it.</summary>
public static class LabourBasis
{
    /// <summary>How far paces of one assembly may have moved apart and still be said to have moved as one.</summary>
    private const decimal Alike = 0.001m;

    private static IEnumerable<Component> Labour(Assembly assembly) =>
        assembly.Components.Where(c => c.Kind == ComponentKind.Labour && c.Ratio is not null);

    /// <summary>That of an assembly.</summary>
    public static string Of(Assembly assembly) => string.Join(';', Labour(assembly).Select(c => $"{c.Id}={c.Ratio}"));

    /// <summary>By what today's assembly allows more hours than it did then; null where its labour is made otherwise by now.</summary>
    /// <param name="then">What <see cref="Of(Assembly)"/> said then.</param>
    /// <param name="today">The assembly today.</param>
    public static decimal? Of(string then, Assembly today)
    {
        if (then == Of(today))
            return 1;
        var was = then.Split(';', StringSplitOptions.RemoveEmptyEntries)
            .Select(part => part.Split('=', 2))
            .ToDictionary(p => p[0], p => Ratio.Parse(p[1]));
        var now = Labour(today).ToDictionary(c => c.Id.ToString(), c => c.Ratio!);
        if (was.Count == 0 || was.Count != now.Count || was.Keys.Any(id => !now.ContainsKey(id)))
            return null;
        var by = was.Select(w => Slower(w.Value, now[w.Key])).ToArray();
        return Array.TrueForAll(by, b => b is { } one && Math.Abs(one / by[0]!.Value - 1) <= Alike)
            ? Rounding.Figure(by.Sum(b => b!.Value) / by.Length)
            : null;
    }

    /// <summary>Hours by one pace ÷ hours by another; null where they are written in other units.</summary>
    private static decimal? Slower(Ratio was, Ratio now) =>
        (was.UnitA, was.UnitB) != (now.UnitA, now.UnitB) ? null
        : was.UnitA.Kind == Kind.Time ? now.A * was.B / (now.B * was.A)
        : now.B * was.A / (now.A * was.B);

    /// <summary>An assembly whose labour takes so many times as long.</summary>
    public static Assembly Scaled(Assembly assembly, decimal by) =>
        assembly with
        {
            Components =
            [
                .. assembly.Components.Select(c =>
                    c is { Kind: ComponentKind.Labour, Ratio: { } ratio } ? c with { Ratio = Slower(ratio, by) } : c
                ),
            ],
        };

    private static Ratio Slower(Ratio ratio, decimal by) =>
        ratio with
        {
            A = decimal.Round(
                ratio.UnitA.Kind == Kind.Time ? ratio.A * by : ratio.A / by,
                Rounding.InputDecimals,
                MidpointRounding.AwayFromZero
            ),
        };
}
