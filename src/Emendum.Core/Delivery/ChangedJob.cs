using System.Collections.Immutable;
using System.Text.Json;
using Emendum.Core.Jobs;
using Emendum.Core.Json;
using Emendum.Core.Places;
using Emendum.Core.Pricing;
using Emendum.Core.Reckoning;
using Emendum.Core.Work;

namespace Emendum.Core.Delivery;

/// <summary>Lines in which a job differs from what was agreed and that can only change together: a place that was measured anew is so for all that is done there, a work item for all places.</summary>
/// <param name="Lines">They, in the work's order.</param>
public sealed record ChangePiece(ImmutableArray<CellKey> Lines)
{
    /// <summary>It as it is named in a request: its first line.</summary>
    public string Id => $"{Lines[0].Work}/{Lines[0].Place}";
}

/// <summary>A job against what was agreed of it: what has been changed since, and what was agreed with some of that.</summary>
public sealed class ChangedJob
{
    private readonly Job now;
    private readonly Dictionary<CellKey, Line> before;
    private readonly Dictionary<CellKey, Line> after;

    private ChangedJob(Estimate agreed, Job now)
    {
        (Agreed, this.now) = (agreed, now);
        // Whatever the job has become beside its lines (terms, rule of deduction, Book), what was agreed holds: only places, work and cells are taken from it.
        var keys = agreed.Job.Cells.Keys.Concat(now.Cells.Keys).ToHashSet();
        All = Estimate.Of(With(keys), Figures.Trace.Silent);
        before = ByKey(agreed);
        after = ByKey(All);
        Pieces = [.. Found()];
    }

    /// <summary>What was agreed.</summary>
    public Estimate Agreed { get; }

    /// <summary>What was agreed with all that has been changed since.</summary>
    public Estimate All { get; }

    /// <summary>What can be changed by itself, in the work's order.</summary>
    public ImmutableArray<ChangePiece> Pieces { get; }

    /// <summary>A job as it stands against what was agreed of it.</summary>
    /// <param name="agreed">What was agreed, with the changes that were accepted since.</param>
    /// <param name="now">The job.</param>
    /// <exception cref="RefusedException">What is changed cannot be reckoned on what was agreed; says why.</exception>
    public static ChangedJob Of(Estimate agreed, Job now) =>
        agreed.Price.Occurrences.IsEmpty
            ? new(agreed, now)
            : throw RefusedException.Of(
                "job",
                "A round's visits are changed in its year, which cannot be done here yet."
            );

    /// <summary>A job with what the customer chose when they accepted, where nobody has changed that since it was sent: the choice is in what was agreed, and in the job only once somebody has taken it over (L9).</summary>
    /// <param name="now">The job as it stands.</param>
    /// <param name="sent">It as it was sent.</param>
    /// <param name="signed">It as it was signed, with what was chosen.</param>
    /// <param name="agreed">That with the changes that were accepted since.</param>
    public static Job WithChosen(Job now, Job sent, Job signed, Job agreed)
    {
        // What a change order has touched since is in the job by that.
        bool Stands<T>(T? isNow, T? wasSent, T? wasSigned, T? isAgreed) =>
            Text(wasSent) is var before
            && Text(wasSigned) is var chosen
            && before != chosen
            && Text(isNow) == before
            && Text(isAgreed) == chosen;
        var cells = now.Cells.ToBuilder();
        foreach (var key in sent.Cells.Keys.Union(signed.Cells.Keys))
        {
            var chosen = signed.Cells.GetValueOrDefault(key);
            if (
                !Stands(
                    now.Cells.GetValueOrDefault(key),
                    sent.Cells.GetValueOrDefault(key),
                    chosen,
                    agreed.Cells.GetValueOrDefault(key)
                )
            )
                continue;
            if (chosen is null)
                cells.Remove(key);
            else
                cells[key] = chosen;
        }
        return now with
        {
            Cells = cells.ToImmutable(),
            Work =
            [
                .. now.Work.Select(w =>
                    Stands(w, sent.Item(w.Id), signed.Item(w.Id), agreed.Item(w.Id)) ? signed.Item(w.Id)! : w
                ),
            ],
            Book = now.Book.AddRange(signed.Book.Where(e => !now.Book.ContainsKey(e.Key))),
        };
    }

    private static Dictionary<CellKey, Line> ByKey(Estimate estimate) =>
        estimate
            .Reckoned.Lines.Where(l => !l.IsNothing)
            .ToDictionary(l => new CellKey(l.OfItem.Item.Id, l.Measures.Place.Id));

    /// <summary>A line as it was agreed; null where it was not.</summary>
    public Line? Before(CellKey key) => before.GetValueOrDefault(key);

    /// <summary>A line as it is by now; null where it is not done any more.</summary>
    public Line? After(CellKey key) => after.GetValueOrDefault(key);

    /// <summary>What was agreed with some lines as they are by now.</summary>
    /// <param name="lines">The lines.</param>
    public Job With(IReadOnlySet<CellKey> lines) => Taken(Agreed.Job, now, lines);

    /// <summary>A job with some lines of another: their cells, with places and work as that has them; and what of the Book hangs on it, where the job has it not.</summary>
    /// <param name="job">The job.</param>
    /// <param name="from">The other.</param>
    /// <param name="lines">The lines; one that is not done there is not done then.</param>
    public static Job Taken(Job job, Job from, IReadOnlySet<CellKey> lines)
    {
        static bool Done(Cell? cell) => cell is { State: CellState.Included };
        var cells = job.Cells.ToBuilder();
        var (places, work) = (new HashSet<Guid>(), new HashSet<Guid>());
        foreach (var key in lines)
        {
            var cell =
                from.Place(key.Place) is null || from.Item(key.Work) is null ? null : from.Cells.GetValueOrDefault(key);
            if (Done(cell))
            {
                // An alternate that was taken since belongs to the change, and to no name in what was agreed.
                cells[key] = job.Alternates.Any(a => a.Id == cell!.Alternate) ? cell! : cell! with { Alternate = null };
                places.Add(key.Place);
                work.Add(key.Work);
            }
            else if (Done(job.Cells.GetValueOrDefault(key)))
                cells.Remove(key);
        }
        ImmutableArray<WorkItem> items =
        [
            .. job.Work.Select(w => work.Contains(w.Id) ? from.Item(w.Id)! : w),
            .. from.Work.Where(w => work.Contains(w.Id) && job.Item(w.Id) is null),
        ];
        var sections = items.Select(w => w.Section).ToHashSet();
        ImmutableArray<Section> all =
        [
            .. job.Sections,
            .. from.Sections.Where(s => sections.Contains(s.Id) && job.Section(s.Id) is null),
        ];
        all = [.. all.OrderBy(s => s.Rank, StringComparer.Ordinal).ThenBy(s => s.Id)];
        var at = all.Select((s, i) => (s.Id, i)).ToDictionary(s => s.Id, s => s.i);
        var known = items.Select(w => w.Id).ToHashSet();
        ImmutableArray<Place> measured =
        [
            .. job
                .Places.Select(p => places.Contains(p.Id) ? from.Place(p.Id)! : p)
                .Concat(from.Places.Where(p => places.Contains(p.Id) && job.Place(p.Id) is null)),
        ];
        var rooms = measured.Select(p => p.Id).ToHashSet();
        var changed = job with
        {
            Cells = cells.ToImmutable(),
            Places =
            [
                .. measured
                    // An opening into a place that is no part of it leads out of it.
                    .Select(p =>
                        p.Openings.Any(o => o.Into is { } into && !rooms.Contains(into))
                            ? p with
                            {
                                Openings =
                                [
                                    .. p.Openings.Select(o =>
                                        o.Into is { } into && !rooms.Contains(into) ? o with { Into = null } : o
                                    ),
                                ],
                            }
                            : p
                    )
                    .OrderBy(p => p.Rank, StringComparer.Ordinal)
                    .ThenBy(p => p.Id),
            ],
            Sections = all,
            Work =
            [
                .. items
                    .Select(w => w with { WaitsFor = [.. w.WaitsFor.Where(known.Contains)] })
                    .OrderBy(w => at.GetValueOrDefault(w.Section, all.Length))
                    .ThenBy(w => w.Rank, StringComparer.Ordinal)
                    .ThenBy(w => w.Id),
            ],
            Book = job.Book.AddRange(from.Book.Where(e => !job.Book.ContainsKey(e.Key))),
        };
        JobRules.Check(changed);
        return changed;
    }

    /// <summary>Lines that differ, those that hang together as one piece.</summary>
    private IEnumerable<ChangePiece> Found()
    {
        var differing = All
            .Reckoned.Lines.Concat(Agreed.Reckoned.Lines)
            .Select(l => new CellKey(l.OfItem.Item.Id, l.Measures.Place.Id))
            .Distinct()
            .Where(Differs)
            .ToList();
        var joined = new Joined(differing.Count);
        var (byPlace, byWork) = (new Dictionary<Guid, int>(), new Dictionary<Guid, int>());
        for (var n = 0; n < differing.Count; n++)
        {
            var key = differing[n];
            // What is dropped takes nothing from the job as it stands.
            if (After(key) is null)
                continue;
            if (Agreed.Job.Place(key.Place) is { } place && !SamePlace(place, now.Place(key.Place)!))
                Join(byPlace, key.Place, n);
            if (Agreed.Job.Item(key.Work) is { } work && !SameWork(work, now.Item(key.Work)!))
                Join(byWork, key.Work, n);
        }
        return differing
            .Select((key, n) => (key, Root: joined.RootOf(n)))
            .GroupBy(x => x.Root)
            .Select(g => new ChangePiece([.. g.Select(x => x.key)]));

        void Join(Dictionary<Guid, int> by, Guid what, int n)
        {
            if (by.TryGetValue(what, out var first))
                joined.Join(first, n);
            else
                by[what] = n;
        }
    }

    private bool Differs(CellKey key)
    {
        var (was, now) = (Before(key), After(key));
        if (was is null || now is null)
            return was is not null || now is not null;
        return was.Quantity.V != now.Quantity.V
            || !was.Amounts.Select(a => a.V).SequenceEqual(now.Amounts.Select(a => a.V))
            || !WorkedAlike(was, now);
    }

    /// <summary>Whether two lines are worked alike, whatever their quantities.</summary>
    internal static bool WorkedAlike(Line a, Line b) => a.Supply == b.Supply && AsWorked(a) == AsWorked(b);

    /// <summary>Work as it is done at a place, for comparing: by what makes its hours, goods and price.</summary>
    private static string AsWorked(Line line) =>
        Text(Worked(line.Cell.Of(line.OfItem.Item)))
        + Text(line.Cell.Answers)
        + Text(line.Cell.Conditions)
        + line.Cell.Labour
        + Text(line.Allowance);

    /// <summary>Work without its words, where it stands in lists, and what concerns the plan and the crew alone.</summary>
    private static WorkItem Worked(WorkItem item) =>
        item with
        {
            Rank = "",
            Section = Guid.Empty,
            Name = "",
            Wording = "",
            CustomerNote = null,
            Hidden = null,
            WaitsFor = [],
            DryingHours = null,
            CrewNote = null,
        };

    private static bool SameWork(WorkItem a, WorkItem b) => Text(Worked(a)) == Text(Worked(b));

    private static bool SamePlace(Place a, Place b) => Text(Measured(a)) == Text(Measured(b));

    private static Place Measured(Place place) =>
        place with
        {
            Name = "",
            Group = "",
            Rank = "",
            Notes = "",
            Line = "",
        };

    // Lists within records are compared by what is in them only as text.
    private static string Text<T>(T of) => JsonSerializer.Serialize(of, CoreJson.Options);

    /// <summary>Numbers that are joined with each other.</summary>
    private sealed class Joined(int count)
    {
        private readonly int[] up = [.. Enumerable.Range(0, count)];

        public int RootOf(int n)
        {
            while (up[n] != n)
                n = up[n] = up[up[n]];
            return n;
        }

        /// <summary>Joins two; the first of them stays the root.</summary>
        public void Join(int a, int b)
        {
            var (x, y) = (RootOf(a), RootOf(b));
            up[Math.Max(x, y)] = Math.Min(x, y);
        }
    }
}
