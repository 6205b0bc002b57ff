using System.Collections.Immutable;
using Emendum.Core.Proposals;

namespace Emendum.Core.Delivery;

/// <summary>A crew's private link to the work order of a job. What opens it is known to its holder alone.</summary>
/// <param name="Id">Its id.</param>
/// <param name="For">Whom it was made for: a person, a crew, another firm.</param>
/// <param name="Sections">Names of the sections that it is about; empty for all of the order.</param>
/// <param name="Made">When it was made (UTC).</param>
/// <param name="Revoked">When it was revoked (UTC); null where it was not.</param>
public sealed record CrewLink(Guid Id, string For, ImmutableArray<string> Sections, DateTime Made, DateTime? Revoked)
{
    /// <summary>Most links of a job.</summary>
    public const int Most = 100;

    /// <summary>How it stands at a moment (UTC): as a customer's link of the same age would.</summary>
    public LinkState StateAt(DateTime now) => new Link(Id, default, For, false, Made, Revoked).StateAt(now);

    /// <summary>Refuses a link for nobody, or about sections that are not in the order.</summary>
    /// <exception cref="RefusedException">Naming the field.</exception>
    public void Check(WorkOrder order)
    {
        if (For.Length is 0 or > HoursFact.MostOfPerson || For.Any(char.IsControl))
            throw RefusedException.Of(
                "for",
                $"Say whom the link is for, in one line of at most {HoursFact.MostOfPerson} characters."
            );
        if (Sections.FirstOrDefault(s => order.Lines.All(l => l.Section != s)) is { } none)
            throw RefusedException.Of("sections", $"“{none}” is not in the work order.");
    }
}
