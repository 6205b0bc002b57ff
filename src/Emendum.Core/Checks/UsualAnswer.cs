using Emendum.Core.Book;
using Emendum.Core.Quantities;

namespace Emendum.Core.Checks;

/// <summary>What is asked at each place is answered nowhere, and the entry's usual answer stands in several.</summary>
internal static class UsualAnswer
{
    /// <summary>In how many places the usual answer must stand to be asked about.</summary>
    private const int FewestPlaces = 2;

    public static IEnumerable<Finding> In(CheckedJob job)
    {
        foreach (var item in job.Reckoned.Items)
        foreach (var question in (item.Entry as Assembly)?.Questions ?? [])
        {
            if (
                question is { Once: true } or { From: not null } or { Usual: 0 }
                || item.Item.Answers.Any(a => a.Question == question.Id)
            )
                continue;
            var silent = job
                .Reckoned.Lines.Where(l =>
                    ReferenceEquals(l.OfItem, item) && l.Cell.Answers.All(a => a.Question != question.Id)
                )
                .ToArray();
            if (silent.Length < FewestPlaces)
                continue;
            var usual = question.UsualIn(job.Job.Units);
            yield return job.Found(
                $"usual/{item.Item.Id}/{question.Id}",
                "The usual answer stands",
                $"{job.Named(item)}: “{question.Text}” is {Rounding.Text(usual.Value)} {usual.Unit} in {silent.Length} places, since nobody has said otherwise.",
                "It is asked at each place. Answer it place by place, or once for all where it is the same.",
                silent[0].Measures.Place.Id,
                item.Item.Id
            );
        }
    }
}
