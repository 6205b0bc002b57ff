namespace Emendum.Core.Book;

/// <summary>What equipment is paid by. Days and visits are rounded up once per work item and job; a visit lasts a working day at most.</summary>
public enum EquipmentPer
{
    Hour,
    Day,
    Visit,
}

/// <summary>Equipment with its cost per hour, day or visit.</summary>
/// <param name="Id">UUIDv7.</param>
/// <param name="Version">Version.</param>
/// <param name="Name">Own name.</param>
/// <param name="Cost">Money for one.</param>
public sealed record Equipment(Guid Id, int Version, string Name, decimal Cost) : BookEntry(Id, Version, Name)
{
    /// <summary>What the cost is for.</summary>
    public EquipmentPer Per { get; init; }

    internal override void Check(BookCheck check)
    {
        if (Cost < 0)
            throw check.Wrong("cost", "the cost cannot be below zero.");
    }
}
