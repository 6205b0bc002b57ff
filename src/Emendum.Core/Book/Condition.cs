namespace Emendum.Core.Book;

/// <summary>A named factor with a reason, put on a job, place, band or line (estimating model §6). Unset is 1; several multiply.</summary>
/// <param name="Id">UUIDv7.</param>
/// <param name="Version">Version.</param>
/// <param name="Name">Own name: <c>occupied</c>.</param>
/// <param name="Reason">Why it costs more, or less.</param>
/// <param name="Labour">Factor on labour hours; crew-tied equipment follows it.</param>
/// <param name="Equipment">Factor on equipment that is not crew-tied.</param>
/// <param name="Material">Factor on material needs.</param>
public sealed record Condition(
    Guid Id,
    int Version,
    string Name,
    string Reason,
    decimal Labour,
    decimal Equipment,
    decimal Material
) : BookEntry(Id, Version, Name)
{
    internal override void Check(BookCheck check)
    {
        foreach (var (factor, field) in new[] { (Labour, "labour"), (Equipment, "equipment"), (Material, "material") })
            if (factor is <= 0 or > 100)
                throw check.Wrong(field, "a factor is more than 0 and at most 100; 1 changes nothing.");
        check.Text(Reason, "reason", 500);
    }
}
