using System.Collections.Immutable;
using Emendum.Core.Book;
using Emendum.Core.Figures;
using Emendum.Core.Jobs;
using Emendum.Core.Pricing;
using Emendum.Core.Quantities;
using Emendum.Core.Work;

namespace Emendum.Core.Reports;

/// <summary>A variant with its price.</summary>
/// <param name="Variant">Which.</param>
/// <param name="Estimate">The job as it has it; null where that cannot be priced.</param>
/// <param name="Refused">Why not, or empty.</param>
public sealed record PricedVariant(Variant Variant, Estimate? Estimate, string Refused)
{
    /// <summary>Start of the paths of a variant's figures.</summary>
    public static string Within(Guid variant) => $"variants/{variant}/";

    /// <summary>All variants of a job side by side, the one that is taken among them.</summary>
    public static ImmutableArray<PricedVariant> Of(Estimate estimate) =>
        [.. estimate.Job.Variants.Select(v => Of(estimate, v))];

    private static PricedVariant Of(Estimate estimate, Variant variant)
    {
        if (variant.Taken)
            return new(variant, estimate, "");
        try
        {
            return new(variant, estimate.If(Variants.Of(estimate.Job, variant.Id)), "");
        }
        catch (RefusedException refused)
        {
            return new(variant, null, refused.Refusal.Message);
        }
    }

    /// <summary>In what a piece of work is another than in the job, in words; empty where it is the same.</summary>
    public static string WhatDiffers(Job ours, Job theirs, Guid work)
    {
        var (a, b) = (ours.Item(work), theirs.Item(work));
        if (a is null || b is null)
            return b is null ? "not in it" : "only in it";
        var words = new List<string>();
        void Say<T>(string what, Func<WorkItem, T> of, Func<Job, T, string>? say = null)
        {
            var (x, y) = (of(a), of(b));
            if (EqualityComparer<T>.Default.Equals(x, y))
                return;
            words.Add(say is null ? what : $"{what} {Or(say(ours, x))} → {Or(say(theirs, y))}");
        }
        static string Or(string text) => text.Length == 0 ? "as in the Book" : text;
        static string Named(Job job, Guid? id) => id is { } of ? job.Book.GetValueOrDefault(of)?.Name ?? "" : "";
        Say("name", w => w.Name, (_, x) => x);
        Say("product", w => w.Product, Named);
        Say("coats", w => w.Coats, (_, x) => Rounding.Text(x));
        Say("colour", w => w.Colour, (_, x) => x);
        Say("pace", w => w.Pace?.ToString() ?? "", (_, x) => x);
        Say("difficulty", w => w.Difficulty, (_, x) => x);
        Say("role", w => w.Role, Named);
        Say("section", w => w.Section);
        Say("who supplies", w => w.Supply);
        Say("rhythm", w => w.Rhythm);
        Say("unit price", w => w.UnitPrice);
        Say("least charge", w => w.Least);
        Say("wording", w => w.Wording);
        var cells = ours
            .Cells.Keys.Union(theirs.Cells.Keys)
            .Count(k =>
                k.Work == work
                && !ReferenceEquals(ours.Cells.GetValueOrDefault(k), theirs.Cells.GetValueOrDefault(k))
                && !ChangeSet.Same(Node(ours, k), Node(theirs, k))
            );
        if (cells > 0)
            words.Add(Counted.Of(cells, "cell"));
        return string.Join(", ", words);
    }

    private static System.Text.Json.Nodes.JsonNode? Node(Job job, CellKey key) =>
        ChangeSet.Get(job, $"cells/{key.Work}/{key.Place}");
}
