using System.Collections.Immutable;
using Emendum.Core.Book;
using Emendum.Core.Figures;
using Emendum.Core.Jobs;
using Emendum.Core.Places;
using Emendum.Core.Pricing;
using Emendum.Core.Quantities;
using Emendum.Core.Work;

namespace Emendum.Core.Reports;

/// <summary>A quantity by which an entry can be tried, with one to begin with.</summary>
/// <param name="Name">The measure, or the question's id.</param>
/// <param name="Label">Words on screen.</param>
/// <param name="Unit">Unit it is given in.</param>
/// <param name="Sample">A quantity of usual size.</param>
public sealed record TrialQuantity(string Name, string Label, Unit Unit, decimal Sample);

/// <summary>How an entry is tried: like a work item at one place of those measures.</summary>
/// <param name="Units">The units measures are in.</param>
/// <param name="Quantities">By name of measure or id of question; what is missing takes its sample.</param>
/// <param name="Coats">Null for the usual.</param>
/// <param name="Difficulty">A level's name, or empty.</param>
/// <param name="Picks">Parts taken of either-or groups, and optional ones.</param>
/// <param name="Conditions">Conditions put on it.</param>
public sealed record Trial(
    UnitSystem Units,
    ImmutableDictionary<string, decimal> Quantities,
    int? Coats,
    string Difficulty,
    ImmutableArray<Guid> Picks,
    ImmutableArray<Guid> Conditions
)
{
    /// <summary>Id of the work item a trial makes; its figures stand under it.</summary>
    public static readonly Guid Work = new("00000000-0000-7000-8000-00000000f001"),
        Place = new("00000000-0000-7000-8000-00000000f002");

    /// <summary>A trial with the samples.</summary>
    public static Trial Usual(UnitSystem units) =>
        new(units, ImmutableDictionary<string, decimal>.Empty, null, "", [], []);

    /// <summary>What an entry of work is tried with: its measures, then its questions.</summary>
    public static IReadOnlyList<TrialQuantity> Asks(WorkEntry entry, UnitSystem units)
    {
        var questions = entry is Assembly assembly ? assembly.Questions : [];
        var measures = new[] { entry.Measure }
            .Concat((entry as Assembly)?.Components.Select(c => c.Measure).OfType<Measure>() ?? [])
            .Concat(questions.Select(q => q.From).OfType<Measure>())
            .Distinct();
        var answered = questions.Where(q => q.From is null);
        return
        [
            .. measures.Select(m => new TrialQuantity(
                m.Name(),
                m.Label(units),
                m.UnitIn(units),
                Sample(m.Kind(), units)
            )),
            .. answered.Select(q => new TrialQuantity(q.Id.ToString(), q.Text, q.Unit, q.Usual)),
        ];
    }

    private static decimal Sample(Kind kind, UnitSystem units) =>
        (kind, units) switch
        {
            (Kind.Area, UnitSystem.Feet) => 400,
            (Kind.Area, _) => 40,
            (Kind.Length, UnitSystem.Feet) => 80,
            (Kind.Length, _) => 26,
            (Kind.Volume, UnitSystem.Feet) => 200,
            (Kind.Volume, _) => 6,
            _ => 4,
        };

    /// <summary>Reckons the entry as if it were done once. <paramref name="book"/> finds what it needs.</summary>
    /// <exception cref="RefusedException">With the field: a quantity, or what is wrong with the entry.</exception>
    public Estimate Of(WorkEntry entry, Func<Guid, BookEntry?> book, Trace trace)
    {
        var pinned = ImmutableDictionary.CreateBuilder<Guid, BookEntry>();
        void Pin(BookEntry one)
        {
            if (!pinned.TryAdd(one.Id, one))
                return;
            foreach (var need in one.Needs)
                if (book(need) is { } found)
                    Pin(found);
        }
        Pin(entry);
        foreach (var id in Conditions)
            if (book(id) is Condition condition)
                Pin(condition);
        BookRules.Check(entry, pinned, named: false);
        foreach (var (_, need) in pinned)
            if (need.Lacks.FirstOrDefault() is { } lack)
                throw RefusedException.Of("", $"{need.Name} needs {lack.What} before it can be used.");
        var given = new Dictionary<Measure, decimal>();
        var answers = new List<Answer>();
        foreach (var ask in Asks(entry, Units))
        {
            var value = Quantities.GetValueOrDefault(ask.Name, ask.Sample);
            if (value < 0)
                throw RefusedException.Of(ask.Name, "A quantity is not below zero.");
            if (Measures.Find(ask.Name) is { } measure)
                given[measure] = value;
            else
                answers.Add(new(Guid.Parse(ask.Name), value));
        }
        var section = new Section(Section.IdOf(entry.Section), entry.Section, "m");
        var item = new WorkItem(
            Work,
            "m",
            entry.Id,
            section.Id,
            entry.Name,
            Coats ?? entry.UsualCoats(),
            null,
            "",
            null,
            entry.Wording
        )
        {
            Difficulty = Difficulty,
            Picks = Picks,
            Answers = [.. answers],
            Conditions = [.. Conditions.Where(pinned.ContainsKey)],
        };
        var place = new Place(Place, "tried", "", "m", "", 1, new Unmeasured(), [], [], "", "");
        var job = Job.Empty(Guid.Empty, new("", "", "", null, "", "", "", "2000-01-01"), Units) with
        {
            Places = [place],
            Sections = [section],
            Work = [item],
            Book = pinned.ToImmutable(),
            Cells = ImmutableDictionary<CellKey, Cell>.Empty.Add(new(Work, Place), new(CellState.Included, "")),
        };
        return Estimate.Of(job, new() { [Place] = PlaceMeasures.Given(place, given, Units, trace) }, trace);
    }
}
