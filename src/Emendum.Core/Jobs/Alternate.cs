namespace Emendum.Core.Jobs;

/// <summary>What taking an alternate does to the price.</summary>
public enum AlternateKind
{
    /// <summary>Its work comes into the price.</summary>
    Add,

    /// <summary>Its work, which is in the price, leaves it.</summary>
    Deduct,
}

/// <summary>Something offered beside the price under one name, over several pieces of work and places. Its cells name it: of one that adds they are alternates until it is taken, of one that
/// deducts they are included until then.</summary>
/// <param name="Id">UUIDv7.</param>
/// <param name="Name">As the customer reads it.</param>
/// <param name="Rank">Sort key among the job's alternates.</param>
/// <param name="Kind">What taking it does.</param>
public sealed record Alternate(Guid Id, string Name, string Rank, AlternateKind Kind);
