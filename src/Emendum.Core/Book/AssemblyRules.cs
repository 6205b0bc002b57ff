using System.Collections.Immutable;
using Emendum.Core.Places;
using Emendum.Core.Quantities;

namespace Emendum.Core.Book;

/// <summary>What the parts of an assembly must be, each and together.</summary>
public static class AssemblyRules
{
    /// <summary>Checks one part.</summary>
    internal static void Part(Assembly assembly, int index, BookCheck check)
    {
        var part = assembly.Components[index];
        RefusedException Wrong(string field, string message) =>
            check.Wrong($"components[{index}].{field}", $"“{part.Name}”: {message}");
        if (string.IsNullOrWhiteSpace(part.Name) || part.Name.Length > 120)
            throw check.Wrong($"components[{index}].name", "a part needs a name of at most 120 characters.");
        var gives = Gives(part, index, check);
        if (
            new[]
            {
                part.Measure is not null,
                part.Of is not null,
                part.Crew is not null,
                part.Question is not null,
                part.Once,
            }.Count(x => x) != 1
        )
            throw Wrong(
                "measure",
                "it must be driven by one thing: a measure, a question, another part, the crew, or come once."
            );
        if (part.WastePercent is < 0 or > 1000)
            throw Wrong("wastePercent", "waste is 0 to 1000 percent.");
        if (part.CompactionPercent is < 0 or > 1000)
            throw Wrong("compactionPercent", "compaction or bulking is 0 to 1000 percent.");
        if (part.Step is <= 0)
            throw Wrong("step", "a rounding step is more than zero.");
        if (part.Charge < 0)
            throw Wrong("charge", "a charge is not below zero.");
        check.Text(part.Wording, $"components[{index}].wording", 1000);
        check.Text(part.CrewNote, $"components[{index}].crewNote", 1000);
        if (part.CrewTime is { } time)
        {
            if (!part.Once || !Of(part).IsLabour)
                throw Wrong("crewTime", "people and hours are of labour that comes once.");
            _ = CrewTime.Read(time, $"components[{index}].crewTime");
            return;
        }
        if (part.Once)
        {
            if (Of(part).AmountOnce && part.Ratio is null)
                throw Wrong("ratio", "say how much of it comes once, like 3 h per each.");
            return;
        }
        if (part.Crew is { } crew)
        {
            if (!Of(part).FollowsCrew || crew is < 1 or > 999)
                throw Wrong("crew", "only equipment follows a crew, of at least one.");
            return;
        }
        var from = Drives(assembly, part, Wrong, check);
        if (
            AskedOnce(assembly, part)
            && (part.Depth.Length > 0 || part.DepthAsked is not null || part.Drops is not null)
        )
            throw Wrong("question", "what is asked once for the job takes no thickness and no drops.");
        if (part.Depth.Length > 0 || part.DepthAsked is not null)
        {
            if (from != Kind.Area)
                throw Wrong(
                    "depth",
                    "a thickness makes a volume of an area; this is driven by " + BookCheck.Words(from) + "."
                );
            if (part.Depth.Length > 0)
                _ = Thickness.Read(part.Depth, $"components[{index}].depth");
            if (
                part.DepthAsked is { } asked
                && assembly.Questions.FirstOrDefault(q => q.Id == asked) is not { Unit.Kind: Kind.Length }
            )
                throw Wrong("depthAsked", "its thickness is asked by a question that is not there, or not a length.");
            from = Kind.Volume;
        }
        if (part.Drops is { } drops)
        {
            if (!Of(part).IsGoods || gives != Kind.Count || from != Kind.Length)
                throw Wrong("drops", "drops make rolls, counted, of a length of wall.");
            foreach (
                var (text, field) in new[]
                {
                    (drops.Wide, "wide"),
                    (drops.Long, "long"),
                    (drops.Trim, "trim"),
                    (drops.Repeat, "repeat"),
                }
            )
                if (text.Length > 0 || field is "wide" or "long")
                    _ = Thickness.Read(text, $"components[{index}].drops.{field}");
            if (assembly.Questions.FirstOrDefault(q => q.Id == drops.Height) is not { Unit.Kind: Kind.Length })
                throw Wrong(
                    "drops.height",
                    "the height of a drop is asked by a question that is not there, or not a length."
                );
            return;
        }
        if (part.Ratio is not { } ratio)
            throw Wrong("ratio", "it needs a rate above zero.");
        if (ratio.A <= 0 || ratio.B <= 0)
            throw Wrong("ratio", "it needs a rate above zero.");
        if (ratio.UnitA.Kind != from && ratio.UnitB.Kind != from)
            throw Wrong("ratio", $"“{ratio}” does not apply to {BookCheck.Words(from)}.");
        var to = ratio.Turn(from).To.Kind;
        if (
            to != gives
            && !(
                Of(part).Density(Of(part).Entry(part, "", check)) is not null
                && (to, gives) is (Kind.Mass, Kind.Volume) or (Kind.Volume, Kind.Mass)
            )
        )
            throw Wrong("ratio", $"“{ratio}” does not turn {BookCheck.Words(from)} into {BookCheck.Words(gives)}.");
    }

    /// <summary>What a part's amount is.</summary>
    private static Kind Gives(Component part, int index, BookCheck check) =>
        Of(part).UnitOf(part, Of(part).Entry(part, $"components[{index}].entry", check)).Kind;

    /// <summary>Whether it is driven by a question that is asked once for the job.</summary>
    private static bool AskedOnce(Assembly assembly, Component part) =>
        assembly.Questions.FirstOrDefault(q => q.Id == part.Question) is { Once: true };

    private static KindOfPart Of(Component part) => KindOfPart.Of(part.Kind);

    /// <summary>What drives a part.</summary>
    private static Kind Drives(
        Assembly assembly,
        Component part,
        Func<string, string, RefusedException> wrong,
        BookCheck check
    )
    {
        if (part.Measure is { } measure)
            return measure.Kind();
        if (part.Question is { } asked)
            return assembly.Questions.FirstOrDefault(q => q.Id == asked)?.Unit.Kind ?? throw wrong(
                    "question",
                    "it is driven by a question that is not there."
                );
        var driver =
            assembly.Components.FirstOrDefault(c => c.Id == part.Of)
            ?? throw wrong("of", "it is driven by a part that is not there.");
        if (driver.Crew is not null || driver.Once)
            throw wrong("of", $"“{driver.Name}” has no quantity of its own to drive another part.");
        if (AskedOnce(assembly, driver))
            throw wrong(
                "of",
                $"“{driver.Name}” comes once for the job: drive this one by the question that it goes by, too."
            );
        var kind = Gives(driver, assembly.Components.IndexOf(driver), check);
        if (
            driver.Group.Length > 0
            && assembly
                .Components.Where(c => c.Group == driver.Group)
                .Any(c => c.Once || AskedOnce(assembly, c) || Gives(c, assembly.Components.IndexOf(c), check) != kind)
        )
            throw wrong(
                "of",
                $"the parts of “{driver.Group}” are not measured alike, so none of them can drive this one."
            );
        return kind;
    }

    /// <summary>The parts with every driver before what it drives.</summary>
    /// <exception cref="RefusedException">They drive each other in a ring; the message gives the path.</exception>
    public static ImmutableArray<Component> InWorkingOrder(
        ImmutableArray<Component> components,
        Func<Component?, string, RefusedException> wrong
    )
    {
        var parts = components.ToDictionary(c => c.Id);
        var (done, order) = (new HashSet<Guid>(), ImmutableArray.CreateBuilder<Component>(components.Length));
        void Visit(Component part, ImmutableArray<Component> path)
        {
            if (done.Contains(part.Id))
                return;
            if (path.Contains(part))
                throw wrong(
                    part,
                    "the parts drive each other in a ring: "
                        + string.Join(" → ", path.Append(part).Select(p => p.Name))
                        + "."
                );
            if (part.Of is { } of)
            {
                if (!parts.TryGetValue(of, out var driver))
                    throw wrong(part, $"“{part.Name}” is driven by a part that is not there.");
                // Whichever of an either-or group is taken may be what drives it.
                foreach (
                    var either in driver.Group.Length == 0 ? [driver] : components.Where(c => c.Group == driver.Group)
                )
                    Visit(either, path.Add(part));
            }
            if (done.Add(part.Id))
                order.Add(part);
        }
        foreach (var part in components.OrderBy(c => c.Crew is null ? 0 : 1))
            Visit(part, []);
        return order.ToImmutable();
    }
}
