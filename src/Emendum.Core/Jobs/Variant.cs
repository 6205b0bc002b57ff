namespace Emendum.Core.Jobs;

/// <summary>A whole version of the estimate under a name, beside others (architecture decision 25). One of them is taken: it is what the job is. All share places, Book, units, crew, proposal and schedule.</summary>
/// <param name="Id">UUIDv7.</param>
/// <param name="Name">Its name.</param>
/// <param name="Rank">Sort key among the job's variants.</param>
/// <param name="Taken">Whether the job is this one.</param>
public sealed record Variant(Guid Id, string Name, string Rank, bool Taken);

/// <summary>Something in which a variant that is not taken differs from the job, as it stands in a file.</summary>
/// <param name="Variant">Which.</param>
/// <param name="Path">Where: a piece of work, a cell, a section, an alternate, or the terms.</param>
/// <param name="Value">What stands there in that variant; null for nothing.</param>
public sealed record Differing(Guid Variant, string Path, System.Text.Json.JsonElement? Value);
