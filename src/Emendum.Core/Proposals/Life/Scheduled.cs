namespace Emendum.Core.Proposals;

/// <summary>A revision that is frozen and goes out later (L5). What was sent before it stays open until then; cancelled, it gives its letters back.</summary>
/// <param name="Id">Its id.</param>
/// <param name="Number">The number that it will have.</param>
/// <param name="Goes">When it goes out, UTC.</param>
public sealed record Scheduled(Guid Id, int Number, DateTime Goes)
{
    /// <summary>How far ahead a sending can be set.</summary>
    public const int MostDays = 366;

    /// <summary>Its letters.</summary>
    public string Letters => RevisionStart.LettersOf(Number);
}
