using System.Text.Json;
using System.Text.Json.Nodes;
using Emendum.Core.Figures;
using Emendum.Core.Jobs;
using Emendum.Core.Json;
using Emendum.Core.Pricing;
using Emendum.Core.Quantities;
using Emendum.Core.Work;

namespace Emendum.Storage.Demo;

/// <summary>A demo job while it is built, by the same commands a person gives; ids are counted from a number, so that every build is the same.</summary>
internal sealed class Draft(Guid id, JobInfo info, UnitSystem units, int number)
{
    private static readonly Dictionary<Guid, Core.Book.BookEntry> Entries = StarterBook.Entries.ToDictionary(e => e.Id);

    /// <summary>The job so far.</summary>
    public Job Job { get; set; } = Job.Empty(id, info, units) with { Policy = PricePolicies.Starting.OfNewJobs() };

    /// <summary>What a job of the made-up firm is called and whom it is for.</summary>
    public static JobInfo Info(string name, string subtitle, string number, Guid customer, string date) =>
        new(name, subtitle, number, customer, "Larkspur & Pell Finishing", "7 Ropewalk, Port Ennis", "USD", date);

    /// <summary>The next id.</summary>
    public Guid Next() => StarterBook.Id(number++);

    /// <summary>Gives a command.</summary>
    public void Do(Command command)
    {
        // Each leaves a number free, so that the ids of the demo jobs stay what they have been.
        number++;
        Job = Commands.Apply(Job, command, entry => Entries.GetValueOrDefault(entry)).Job;
    }

    /// <summary>Measures a place.</summary>
    public Guid Place(string group, string line)
    {
        var place = Next();
        Do(new AddPlace(place, line, group, null));
        return place;
    }

    /// <summary>Adds an entry of the starter Book, included in places.</summary>
    public Guid Work(int entry, params Guid[] places)
    {
        var work = Next();
        Do(new AddWork(work, StarterBook.Id(entry), null));
        if (places.Length > 0)
            Fill(work, CellState.Included, places);
        return work;
    }

    /// <summary>Says what a work item is at places.</summary>
    public void Fill(Guid work, CellState? state, params Guid[] places) =>
        Do(new FillCells([work], [.. places], Job.Seen([work], places), state));

    /// <summary>Sets a field of a work item.</summary>
    public void Set<T>(Guid work, string field, T now) =>
        Do(new SetWork(work, field, ChangeSet.Get(Job, $"work/{work}/{field}"), Node(now)));

    /// <summary>Sets a field of a cell.</summary>
    public void Set<T>(Guid work, Guid place, string field, T now) =>
        Do(new SetCells(work, field, [new(place, ChangeSet.Get(Job, $"cells/{work}/{place}/{field}"), Node(now))]));

    /// <summary>Sets a field of the pricing terms.</summary>
    public void Price<T>(string field, T now) =>
        Do(new SetPricing(field, ChangeSet.Get(Job, "pricing/" + field), Node(now)));

    /// <summary>Sets a field of the section that work stands under.</summary>
    public void Section<T>(Guid work, string field, T now)
    {
        var section = Job.Item(work)!.Section;
        Do(new SetSection(section, field, ChangeSet.Get(Job, $"sections/{section}/{field}"), Node(now)));
    }

    /// <summary>Sets a term of the crew.</summary>
    public void Crew<T>(string field, T now) => Do(new SetCrew(field, ChangeSet.Get(Job, "crew/" + field), Node(now)));

    /// <summary>Makes a choice of a piece of work; the first option is included.</summary>
    public Guid Choice(string name, Guid work, Guid[] places, params ChoiceOption[] options)
    {
        var choice = Next();
        Do(
            new AddChoice(
                new(choice, "", name, work, [.. options], options[0].Id, options[0].Id) { Places = [.. places] }
            )
        );
        return choice;
    }

    /// <summary>Gives a block of the proposal that every job starts with words of its own.</summary>
    public void Words(BlockKind kind, string words) =>
        Do(new SetBlock(ProposalBlock.First(kind), "words", null, words.ReplaceLineEndings("\n")));

    /// <summary>Gives a block of the proposal that every job starts with the words of a text of the starter Book.</summary>
    public void Text(BlockKind kind, int text) => Do(new TakeText(ProposalBlock.First(kind), StarterBook.Id(text)));

    /// <summary>Puts a block with the words of a text of the starter Book into the proposal, before all or after the first of a kind.</summary>
    public void Block(BlockKind kind, int text, BlockKind? after) =>
        Do(
            new AddBlock(
                new(ProposalBlock.First(kind), kind, "") { Text = StarterBook.Id(text) },
                after is { } first ? ProposalBlock.First(first) : null
            )
        );

    /// <summary>Puts pictures into the proposal under a heading, so many in a row, after the block that every job starts with of a kind.</summary>
    public void Pictures(string title, int across, BlockKind after, params BlockFile[] files) =>
        Do(
            new AddBlock(
                new(Next(), BlockKind.Pictures, "")
                {
                    Title = title,
                    Across = across,
                    Files = [.. files],
                },
                ProposalBlock.First(after)
            )
        );

    /// <summary>Sets what the customer sees.</summary>
    public void Shows<T>(string field, T now) =>
        Do(new SetProposal(field, ChangeSet.Get(Job, "proposal/" + field), Node(now)));

    /// <summary>Sets a term of the round.</summary>
    public void Round<T>(string field, T now) =>
        Do(new SetRound(field, ChangeSet.Get(Job, "round/" + field), Node(now)));

    /// <summary>Sets conditions on a place.</summary>
    public void Conditions(Guid place, params Core.Places.PlaceCondition[] conditions) =>
        Do(
            new SetPlaces(
                "conditions",
                [new(place, ChangeSet.Get(Job, $"places/{place}/conditions"), Node(conditions))]
            )
        );

    private static JsonNode? Node<T>(T value) => JsonSerializer.SerializeToNode(value, CoreJson.Options);
}
