using System.Text.Json.Nodes;
using Emendum.Core.Quantities;

namespace Emendum.Core.Figures;

/// <summary>Writes how a figure came about as JSON (docs/workings-format.md), and as one sentence.</summary>
public static class Explanation
{
    /// <summary>The figure at <paramref name="path"/> with the figures it came from, <paramref name="levels"/> deep (all the way when null).</summary>
    public static JsonObject? Of(Trace trace, string path, int? levels = null)
    {
        if (!trace.Figures.TryGetValue(path, out var root))
            return null;
        var (figures, sets) = (new JsonObject(), new JsonObject());
        var queue = new Queue<(Figure Figure, int Level)>();
        queue.Enqueue((root, 0));
        while (queue.TryDequeue(out var next))
        {
            if (figures.ContainsKey(next.Figure.Path))
                continue;
            figures[next.Figure.Path] = new JsonObject
            {
                ["label"] = next.Figure.Label,
                ["value"] = Rounding.Text(next.Figure.Value),
                ["unit"] = next.Figure.Unit,
                ["shown"] = Number(next.Figure.Value, next.Figure.Unit),
                ["sentence"] = Sentence(next.Figure),
                ["how"] = Write(
                    next.Figure.How,
                    sets,
                    figure =>
                    {
                        if (levels is null || next.Level < levels)
                            queue.Enqueue((figure, next.Level + 1));
                    }
                ),
            };
        }
        return new JsonObject
        {
            ["figure"] = path,
            ["figures"] = figures,
            ["sets"] = sets,
        };
    }

    /// <summary>Most lines of <see cref="Text"/>.</summary>
    public const int MostLines = 2000;

    /// <summary>The figure and what it came from as indented lines, each figure's sentence once; null when there is no such figure.</summary>
    public static string? Text(Trace trace, string path)
    {
        if (!trace.Figures.TryGetValue(path, out var root))
            return null;
        var (text, said, lines) = (new System.Text.StringBuilder(), new HashSet<string>(StringComparer.Ordinal), 0);
        void Say(Figure figure, int depth)
        {
            if (lines++ >= MostLines)
                return;
            var first = said.Add(figure.Path);
            text.Append(' ', depth * 2)
                .Append(figure.Label)
                .Append(": ")
                .Append(Sentence(figure))
                .Append(first ? "" : " (as above)")
                .Append('\n');
            if (!first)
                return;
            foreach (
                var part in Parts(figure.How)
                    .DistinctBy(p =>
                        p is Ref of ? of.Figure.Path
                        : p is Leaf leaf ? $"{leaf.Source}|{leaf.Label}|{leaf.Value}|{leaf.Unit}|{leaf.Link}"
                        : ""
                    )
            )
            {
                if (part is Ref of)
                    Say(of.Figure, depth + 1);
                else if (part is Leaf { Source: not "constant" } leaf && lines++ < MostLines)
                    text.Append(' ', (depth + 1) * 2)
                        .Append(leaf.Label.Length == 0 ? "number" : leaf.Label)
                        .Append(": ")
                        .Append(leaf.Text ?? Exactly(leaf.Value, leaf.Unit))
                        .Append(
                            leaf.Source switch
                            {
                                "book" => ", in the Book",
                                "terms" => ", in the job's terms",
                                _ => ", typed",
                            }
                        )
                        .Append('\n');
            }
        }
        Say(root, 0);
        if (lines > MostLines)
            text.Append("… and more\n");
        return text.ToString();
    }

    /// <summary>The numbers and figures a step came from, without the operations between.</summary>
    private static IEnumerable<Expr> Parts(Expr expr) =>
        expr switch
        {
            Leaf or Ref => [expr],
            Op op => op.Of.SelectMany(Parts),
            Cents cents => Parts(cents.Of),
            Apply apply => [.. Parts(apply.Of), apply.Times, apply.Over],
            Packs packs => Parts(packs.Need),
            Table table => Parts(table.Of),
            Plan plan =>
            [
                .. Parts(plan.Crew),
                .. Parts(plan.HoursPerDay),
                .. plan.Steps.SelectMany(s => Parts(s.Hours)),
            ],
            Share share => [.. Parts(share.Set.Total), .. share.Set.Weights.SelectMany(Parts)],
            Outcome outcome => Parts(outcome.Of),
            OutcomesAbove above => [.. Parts(above.Bound), .. Parts(above.Of)],
            _ => [],
        };

    private static IEnumerable<Expr> Parts(DrawnSum of) =>
        [
            .. Parts(of.Fixed),
            .. Parts(of.Shared),
            .. Parts(of.Seed),
            .. of.Varying.SelectMany(v => Parts(v.Least).Concat(Parts(v.Most))),
        ];

    private static JsonObject Write(Expr expr, JsonObject sets, Action<Figure> refer)
    {
        JsonArray All(IEnumerable<Expr> of) => [.. of.Select(e => (JsonNode)Write(e, sets, refer))];
        string Drawn(DrawnSum of)
        {
            if (!sets.ContainsKey(of.Name))
            {
                sets[of.Name] = new JsonObject();
                sets[of.Name] = DrawnSum(of, part => Write(part, sets, refer));
            }
            return of.Name;
        }
        switch (expr)
        {
            case Leaf leaf:
                var node = new JsonObject
                {
                    ["op"] = leaf.Source,
                    ["value"] = Rounding.Text(leaf.Value),
                    ["unit"] = leaf.Unit,
                    ["label"] = leaf.Label,
                };
                if (leaf.Text is not null)
                    node["text"] = leaf.Text;
                else
                    node["shown"] = Exactly(leaf.Value, leaf.Unit);
                if (leaf.Link is not null)
                    node["link"] = leaf.Link;
                return node;
            case Ref reference:
                refer(reference.Figure);
                return new JsonObject
                {
                    ["op"] = "figure",
                    ["path"] = reference.Figure.Path,
                    ["label"] = reference.Figure.Label,
                    ["value"] = Rounding.Text(reference.Figure.Value),
                    ["unit"] = reference.Figure.Unit,
                    ["shown"] = Number(reference.Figure.Value, reference.Figure.Unit),
                };
            case Op op:
                return new JsonObject { ["op"] = op.Name, ["of"] = All(op.Of) };
            case Cents cents:
                return Placed(new JsonObject { ["op"] = "money", ["of"] = All([cents.Of]) }, cents.Places);
            case Apply apply:
                return new JsonObject { ["op"] = "apply", ["of"] = All([apply.Of, apply.Times, apply.Over]) };
            case Packs packs:
                var chosen = new JsonObject
                {
                    ["op"] = "packs",
                    ["gives"] = packs.Gives,
                    ["of"] = All([packs.Need]),
                    ["packs"] = new JsonArray(
                        [
                            .. packs.Counts.Select(p =>
                                (JsonNode)
                                    new JsonObject
                                    {
                                        ["size"] = Rounding.Text(p.Size),
                                        ["price"] = Rounding.Text(p.Price),
                                        ["count"] = Rounding.Text(p.Count),
                                    }
                            ),
                        ]
                    ),
                };
                if (packs.Above > 0)
                    chosen["above"] = Rounding.Text(packs.Above);
                return chosen;
            case Table table:
                return new JsonObject
                {
                    ["op"] = "table",
                    ["label"] = table.Label,
                    ["link"] = table.Link,
                    ["of"] = All([table.Of]),
                    ["rows"] = new JsonArray(
                        [
                            .. table.Rows.Select(r =>
                                (JsonNode)
                                    new JsonObject
                                    {
                                        ["from"] = Rounding.Text(r.From),
                                        ["gives"] = Rounding.Text(r.Gives),
                                    }
                            ),
                        ]
                    ),
                };
            case Plan plan:
                return new JsonObject
                {
                    ["op"] = "plan",
                    ["gives"] = plan.Gives,
                    ["of"] = All([plan.Crew, plan.HoursPerDay, .. plan.Steps.Select(s => s.Hours)]),
                    ["steps"] = new JsonArray(
                        [
                            .. plan.Steps.Select(s =>
                                (JsonNode)
                                    new JsonObject
                                    {
                                        ["coats"] = s.Coats,
                                        ["waits"] = new JsonArray([.. s.Waits.Select(w => (JsonNode)w)]),
                                        ["drying"] = Rounding.Text(s.Drying),
                                    }
                            ),
                        ]
                    ),
                };
            case Share share:
                if (!sets.ContainsKey(share.Set.Name))
                {
                    sets[share.Set.Name] = new JsonObject();
                    sets[share.Set.Name] = Placed(
                        new JsonObject
                        {
                            ["total"] = Write(share.Set.Total, sets, refer),
                            ["weights"] = All(share.Set.Weights),
                        },
                        share.Set.Places
                    );
                }
                return new JsonObject
                {
                    ["op"] = "share",
                    ["set"] = share.Set.Name,
                    ["index"] = share.Index,
                };
            case Outcome outcome:
                return new JsonObject
                {
                    ["op"] = "outcome",
                    ["set"] = Drawn(outcome.Of),
                    ["rank"] = outcome.Rank,
                };
            case OutcomesAbove above:
                return new JsonObject
                {
                    ["op"] = "outcomesAbove",
                    ["set"] = Drawn(above.Of),
                    ["of"] = All([above.Bound]),
                };
            default:
                throw new InvalidOperationException("An operation without a written form: " + expr.GetType().Name);
        }
    }

    private static JsonObject DrawnSum(DrawnSum of, Func<Expr, JsonObject> write) =>
        new()
        {
            ["fixed"] = write(of.Fixed),
            ["varying"] = new JsonArray(
                [
                    .. of.Varying.Select(v =>
                        (JsonNode)
                            new JsonObject
                            {
                                ["least"] = write(v.Least),
                                ["most"] = write(v.Most),
                                ["stream"] = v.Stream,
                            }
                    ),
                ]
            ),
            ["shared"] = write(of.Shared),
            ["seed"] = write(of.Seed),
            ["draws"] = of.Draws,
            ["streams"] = of.Streams,
        };

    /// <summary>Says how many places money has, where those are not cents.</summary>
    private static JsonObject Placed(JsonObject node, int places)
    {
        if (places != 2)
            node["places"] = places;
        return node;
    }

    /// <summary>One line: <c>360 ft² ÷ 95 ft²/h × 1.15 (occupied) = 4.358 h</c>.</summary>
    public static string Sentence(Figure figure) =>
        figure.How is Ref same
            ? $"the same as {same.Figure.Label}: {Number(figure.Value, figure.Unit)}"
            : $"{Say(figure.How, 0)} = {Number(figure.Value, figure.Unit)}";

    private const int MostTerms = 6;

    private static string Say(Expr expr, int binding) =>
        expr switch
        {
            Leaf leaf => leaf.Text is not null
                ? leaf.Text
                : Number(leaf.Value, leaf.Unit)
                    + (leaf.Source == "constant" || leaf.Label.Length == 0 ? "" : $" ({leaf.Label})"),
            Ref reference => Number(reference.Figure.Value, reference.Figure.Unit),
            Op { Name: "add", Of: { Count: > MostTerms } of } => Bracket($"sum of {of.Count} parts", 1, binding),
            Op { Name: "add", Of.Count: 0 } => "0",
            Op { Name: "add" } op => Bracket(
                string.Join(" + ", op.Of.Select(o => Say(o, 1))),
                op.Of.Count > 1 ? 1 : 9,
                binding
            ),
            Op { Name: "subtract" } op => Bracket($"{Say(op.Of[0], 1)} − {Say(op.Of[1], 2)}", 1, binding),
            Op { Name: "multiply" } op => Bracket($"{Say(op.Of[0], 2)} × {Say(op.Of[1], 3)}", 2, binding),
            Op
            {
                Name: "divide",
                Of: [
                    Op { Name: "multiply", Of: [var of, Leaf { Unit: "%" } percent] },
                    Leaf { Source: "constant", Value: 100m },
                ]
            } => Bracket($"{Say(of, 2)} × {Say(percent, 3)}", 2, binding),
            Op
            {
                Name: "divide",
                Of: [
                    Op
                    {
                        Name: "multiply",
                        Of: [
                            var of,
                            Op { Name: "add", Of: [Leaf { Source: "constant", Value: 100m }, Leaf { Unit: "%" } more] },
                        ]
                    },
                    Leaf { Source: "constant", Value: 100m },
                ]
            } => Bracket($"{Say(of, 1)} + {Say(more, 1)}", 1, binding),
            Op { Name: "divide" } op => Bracket($"{Say(op.Of[0], 2)} ÷ {Say(op.Of[1], 3)}", 2, binding),
            Op { Name: "ceil" } op => $"{Say(op.Of[0], 1)}, up to a whole number",
            Op { Name: "floor" } op => $"{Say(op.Of[0], 1)}, down to a whole number",
            Op { Name: "max" } op => $"the larger of {Say(op.Of[0], 1)} and {Say(op.Of[1], 1)}",
            Op { Name: "min" } op => $"the smaller of {Say(op.Of[0], 1)} and {Say(op.Of[1], 1)}",
            Table table =>
                $"{Number(table.Rows[0].Gives, table.Unit)}{string.Concat(table.Rows.Skip(1).Select(r => $", from {Rounding.Text(r.From)} {Number(r.Gives, table.Unit)}"))} ({table.Label})",
            Plan plan =>
                $"{plan.Steps.Count} pieces of work in order by a crew of {Say(plan.Crew, 1)}, {Say(plan.HoursPerDay, 1)} a day, with waits and drying",
            Op { Name: "sqrt" } op => $"√({Say(op.Of[0], 0)})",
            Cents cents => Say(cents.Of, binding),
            // A figure that goes on in another unit is said in both, so that the sentence can be followed with a pencil.
            Apply { Times.Source: "constant", Of: Ref of } apply when binding > 0 =>
                $"{Say(of, binding)} ({Number(of.Figure.Value * apply.Times.Value / apply.Over.Value, apply.Times.Unit)})",
            Apply { Times.Source: "constant" } apply => Say(apply.Of, binding),
            Apply { Times.Value: 1m } apply => Bracket(
                $"{Say(apply.Of, 2)} ÷ {Number(apply.Over.Value, $"{apply.Over.Unit}/{apply.Times.Unit}")}",
                2,
                binding
            ),
            Apply apply => Bracket(
                $"{Say(apply.Of, 2)} × {Number(apply.Times.Value, apply.Times.Unit)} ÷ {Number(apply.Over.Value, apply.Over.Unit)}",
                2,
                binding
            ),
            Packs packs =>
                $"{(packs.Above == 0 ? "cheapest packs" : $"packs, at most {Number(Rounding.Money(packs.Above), "")} above the cheapest,")} that cover {Say(packs.Need, 1)}: "
                    + (
                        packs.Counts.All(p => p.Count == 0)
                            ? "none"
                            : string.Join(
                                " + ",
                                packs
                                    .Counts.Where(p => p.Count != 0)
                                    .Select(p =>
                                        $"{Rounding.Text(p.Count)} × {Rounding.Text(p.Size)}{(packs.Gives == "cost" ? $" at {Number(p.Price, "")}" : "")}"
                                    )
                            )
                    ),
            Share share =>
                $"share {share.Index + 1} of {share.Set.Weights.Count} of {Say(share.Set.Total, 1)} by {share.Set.Name}",
            Outcome outcome =>
                $"the {outcome.Rank:N0}th smallest of {outcome.Of.Draws:N0} outcomes of the {outcome.Of.Name}",
            OutcomesAbove above =>
                $"how many of {above.Of.Draws:N0} outcomes of the {above.Of.Name} come to more than {Say(above.Bound, 1)}",
            _ => "",
        };

    private static string Bracket(string text, int own, int binding) => own < binding ? $"({text})" : text;

    /// <summary>To three decimals, as figures are read.</summary>
    private static string Number(decimal value, string unit) =>
        Exactly(decimal.Round(value, 3, MidpointRounding.AwayFromZero), unit);

    /// <summary>With every decimal, as it was typed.</summary>
    private static string Exactly(decimal value, string unit) =>
        value.ToString("#,0.############", System.Globalization.CultureInfo.InvariantCulture)
        + (
            unit.Length == 0 ? ""
            : unit == "%" ? " %"
            : " " + unit
        );
}
