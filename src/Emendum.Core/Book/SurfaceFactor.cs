namespace Emendum.Core.Book;

/// <summary>What a surface makes of a measured quantity: profiled sheet has more to treat than its outline, rough render drinks more.</summary>
/// <param name="Id">UUIDv7.</param>
/// <param name="Version">Version.</param>
/// <param name="Name">Own name.</param>
/// <param name="Treated">Treated quantity per measured: 1.3 for profiled sheet, 2 for both faces.</param>
/// <param name="Coverage">What a unit of material covers there, of its usual coverage: 0.8 for a thirsty surface.</param>
public sealed record SurfaceFactor(Guid Id, int Version, string Name, decimal Treated, decimal Coverage)
    : BookEntry(Id, Version, Name)
{
    internal override void Check(BookCheck check)
    {
        if (Treated is <= 0 or > 100)
            throw check.Wrong("treated", "treated per measured is more than 0 and at most 100; 1 changes nothing.");
        if (Coverage is <= 0 or > 100)
            throw check.Wrong("coverage", "coverage is more than 0 and at most 100 of the usual; 1 changes nothing.");
    }
}
