using System.Text.Json.Nodes;
using Emendum.Core.Book;
using Emendum.Core.Figures;
using Emendum.Core.Places;
using Emendum.Core.Work;

namespace Emendum.Core.Jobs;

/// <summary>Cells, by work item and place.</summary>
internal sealed class CellsPart() : JobPart("cells")
{
    private static CellKey Key(string at) => new(Guid.Parse(at.AsSpan(0, 36)), Guid.Parse(at.AsSpan(37, 36)));

    private static string Field(string at) => at.Length > 74 ? at[74..] : "";

    /// <inheritdoc/>
    public override JsonNode? Get(Job job, string at) => Node(job.Cells.GetValueOrDefault(Key(at)), Field(at));

    /// <inheritdoc/>
    public override Job Set(Job job, string at, JsonNode? value) =>
        job with
        {
            Cells = Changed(job.Cells.GetValueOrDefault(Key(at)), Field(at), value) is { } cell
                ? job.Cells.SetItem(Key(at), cell)
                : job.Cells.Remove(Key(at)),
        };

    /// <inheritdoc/>
    public override bool Settable(string field) =>
        field is not ("state" or "note" or "alternate") && HasField<Cell>(field);

    /// <inheritdoc/>
    public override void Check(Job job)
    {
        foreach (var (key, cell) in job.Cells)
        {
            if (job.Place(key.Place) is null)
                throw RefusedException.Of("cells", $"A cell names a place that is not there: {key.Place}.");
            if (job.Item(key.Work) is null)
                throw RefusedException.Of("cells", $"A cell names a work item that is not there: {key.Work}.");
            Check(job, key, cell);
        }
    }

    /// <inheritdoc/>
    public override void CheckTouched(Job job, IReadOnlyList<Change> changes)
    {
        foreach (var key in changes.Select(c => Key(At(c))))
        {
            if (!job.Cells.TryGetValue(key, out var cell))
                continue;
            if (job.Item(key.Work) is null || job.Place(key.Place) is null)
                throw RefusedException.Of("", "The place or the work has since been taken away.");
            Check(job, key, cell);
        }
    }

    /// <summary>Checks what a cell overrides.</summary>
    public static void Check(Job job, CellKey key, Cell cell)
    {
        CheckNote(cell.Note);
        if (cell.Alternate is { } alternate && job.Alternates.All(a => a.Id != alternate))
            throw RefusedException.Of("alternate", "That alternate is not in this job any more.");
        if (!cell.Differs)
            return;
        if (!cell.Conditions.IsEmpty)
            ConditionsPart.Check(job, cell.Conditions);
        var item = job.Item(key.Work)!;
        WorkPart.Check(cell.Of(item), job);
        if (cell.Allowance is < 0)
            throw RefusedException.Of("allowance", "A sum is not below zero.");
        if (cell.Labour is { } labour)
        {
            _ = CrewTime.Read(labour, "labour");
            if (!Array.Exists(CompiledItem.Of(cell.Of(item), job.Book).Parts, p => p.Kind.IsLabour))
                throw RefusedException.Of(
                    "labour",
                    item.Labour is null
                        ? $"{item.Name} has no labour that hours could be typed for."
                        : $"{item.Name} has its hours typed in all: empty those first."
                );
        }
        var entry = job.Book.GetValueOrDefault(item.Entry) as WorkEntry;
        if (cell.Quantity is { } typed && entry is not null)
        {
            if (typed.Kind != entry.Measure.Kind())
                throw RefusedException.Of(
                    "quantity",
                    $"{entry.Name} is measured against {BookCheck.Words(entry.Measure.Kind())}."
                );
            if (TypedQuantities.Read(typed).Value < 0)
                throw RefusedException.Of("quantity", "A quantity is not below zero.");
        }
        if (cell.Answers.IsEmpty && cell.Source.Length == 0)
            return;
        WorkPart.CheckAnswers(entry, cell.Answers);
        if (cell.Source.Length == 0 || entry is null)
            return;
        if (cell.Source.Length > 80)
            throw RefusedException.Of("source", "That is not a quantity of this place.");
        var measures = job.Measured(job.Place(key.Place)!, Trace.Silent);
        var kind =
            Measures.Find(cell.Source) is { } named && measures.Has(named)
                ? named.Kind()
                : measures.Extras.FirstOrDefault(e => e.Leaf == cell.Source)?.Kind ?? throw RefusedException.Of(
                        "source",
                        $"{job.Place(key.Place)!.Name} has no such quantity."
                    );
        if (kind != entry.Measure.Kind())
            throw RefusedException.Of(
                "source",
                $"{entry.Name} is measured against {BookCheck.Words(entry.Measure.Kind())}."
            );
    }

    /// <summary>Checks a sentence at a cell.</summary>
    public static void CheckNote(string note)
    {
        if (note.Length > 500)
            throw RefusedException.Of("note", "A note is at most 500 characters.");
    }
}
