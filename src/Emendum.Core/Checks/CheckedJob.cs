using System.Collections.Immutable;
using Emendum.Core.Book;
using Emendum.Core.Figures;
using Emendum.Core.Jobs;
using Emendum.Core.Places;
using Emendum.Core.Pricing;
using Emendum.Core.Quantities;
using Emendum.Core.Reckoning;
using Emendum.Core.Work;

namespace Emendum.Core.Checks;

/// <summary>A job as the checks look at it.</summary>
/// <param name="estimate">The job, reckoned and priced.</param>
/// <param name="shelf">The Book, for what is usual.</param>
/// <param name="sizes">The firm's usual doors and windows.</param>
internal sealed class CheckedJob(Estimate estimate, IReadOnlyCollection<BookEntry> shelf, UsualSizes sizes)
{
    public Estimate Estimate => estimate;
    public Reckoned Reckoned => estimate.Reckoned;
    public Job Job => estimate.Job;
    public IReadOnlyCollection<BookEntry> Shelf => shelf;
    public UsualSizes Sizes => sizes;

    /// <summary>A finding of this job.</summary>
    public Finding Found(
        string key,
        string kind,
        string says,
        string why,
        Guid? place = null,
        Guid? work = null,
        Guid? entry = null,
        ImmutableArray<Offer>? offers = null
    ) => new(key, kind, says, why, place, work, entry, offers ?? [], Job.SetAside.GetValueOrDefault(key, ""));

    /// <summary>Section and name of work.</summary>
    public string Named(CompiledItem item) => Job.Titled(item.Item);

    /// <summary>A measure with its unit, as short as it can be read.</summary>
    public string Shown(Val value, Measure measure) =>
        $"{Rounding.Text(decimal.Round(value.V, 1, MidpointRounding.AwayFromZero))} {Line.SymbolOf(measure, Job.Units)}".TrimEnd();
}
