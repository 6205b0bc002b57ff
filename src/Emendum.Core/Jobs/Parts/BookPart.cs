using System.Text.Json;
using System.Text.Json.Nodes;
using Emendum.Core.Book;
using Emendum.Core.Json;

namespace Emendum.Core.Jobs;

/// <summary>The entries that a job has pinned.</summary>
internal sealed class BookPart() : JobPart("book")
{
    /// <inheritdoc/>
    public override JsonNode? Get(Job job, string at) => Node(job.Book.GetValueOrDefault(Guid.Parse(at)));

    /// <inheritdoc/>
    public override Job Set(Job job, string at, JsonNode? value) =>
        job with
        {
            Book = value is null
                ? job.Book.Remove(Guid.Parse(at))
                : job.Book.SetItem(Guid.Parse(at), value.Deserialize<BookEntry>(CoreJson.Options)!),
        };

    /// <inheritdoc/>
    public override void Check(Job job)
    {
        foreach (var (_, entry) in job.Book)
            BookRules.Check(entry, job.Book);
    }

    /// <summary>An entry that is pinned anew comes from the Book, which has checked it; what changes or goes may be used by anything.</summary>
    public override void CheckTouched(Job job, IReadOnlyList<Change> changes)
    {
        if (changes.Any(c => c.Before is not null))
            JobRules.Check(job);
    }
}
