using System.Collections.Immutable;
using System.Globalization;
using Emendum.Core.Jobs;

namespace Emendum.Core.Proposals;

/// <summary>A name under what was agreed.</summary>
/// <param name="Id">Its id.</param>
/// <param name="ByFirm">Whether it is the firm's; otherwise the customer's.</param>
/// <param name="Name">The name in full.</param>
/// <param name="Drawn">It as it was drawn (<see cref="Drawing"/>); empty where it was typed.</param>
/// <param name="At">When (UTC).</param>
public sealed record Signed(Guid Id, bool ByFirm, string Name, string Drawn, DateTime At)
{
    /// <summary>Most characters of a name.</summary>
    public const int MostOfName = 120;

    /// <summary>Most signatures under one acceptance (L21).</summary>
    public const int Most = 20;

    /// <summary>Refuses what is no signature.</summary>
    /// <exception cref="RefusedException">Naming the field.</exception>
    public void Check()
    {
        if (string.IsNullOrWhiteSpace(Name) || Name.Length > MostOfName || Name.Any(char.IsControl))
            throw RefusedException.Of("name", $"Write your name in full, at most {MostOfName} characters.");
        if (Drawn.Length > 0 && Drawing.Read(Drawn) is null)
            throw RefusedException.Of("drawn", "That drawing cannot be read. Draw it once more, or type your name.");
    }
}

/// <summary>
/// A name drawn with finger, pen or mouse: strokes, each a list of points in a field of 1,000 by 300, from the upper left; points divided by spaces, strokes by semicolons: <c>10,150 40,90;60,150 61,151</c>.
/// </summary>
public static class Drawing
{
    /// <summary>Width of the field.</summary>
    public const int Wide = 1000;

    /// <summary>Height of the field.</summary>
    public const int High = 300;

    /// <summary>Most points of all strokes.</summary>
    public const int MostPoints = 4000;

    private const int MostCharacters = MostPoints * 9;

    /// <summary>Its strokes; null where it is none.</summary>
    public static ImmutableArray<ImmutableArray<(int X, int Y)>>? Read(string drawn)
    {
        if (drawn.Length is 0 or > MostCharacters)
            return null;
        var (strokes, points) = (ImmutableArray.CreateBuilder<ImmutableArray<(int, int)>>(), 0);
        foreach (var stroke in drawn.Split(';'))
        {
            var read = ImmutableArray.CreateBuilder<(int, int)>();
            foreach (var point in stroke.Split(' '))
            {
                if (
                    ++points > MostPoints
                    || point.Split(',') is not [var x, var y]
                    || !Within(x, Wide, out var across)
                    || !Within(y, High, out var down)
                )
                    return null;
                read.Add((across, down));
            }
            strokes.Add(read.ToImmutable());
        }
        return strokes.ToImmutable();
    }

    private static bool Within(string text, int most, out int number) =>
        int.TryParse(text, NumberStyles.None, CultureInfo.InvariantCulture, out number) && number <= most;
}

/// <summary>An acceptance: what was agreed, and the names under it.</summary>
/// <param name="Fact">The fact of it.</param>
/// <param name="Revision">The revision.</param>
/// <param name="Statement">What is signed.</param>
/// <param name="Names">The names, the customer's first one first.</param>
public sealed record Acceptance(Guid Fact, Guid Revision, Statement Statement, ImmutableArray<Signed> Names)
{
    /// <summary>Where nobody signed here and the firm recorded a yes on paper or by word (L14): which day it bears and how it came, as a sentence; empty otherwise.</summary>
    public string Recorded { get; init; } = "";

    /// <summary>It, as the fact of it says that it came about.</summary>
    public Acceptance By(Fact fact) =>
        this with
        {
            Recorded = fact is { Kind: FactKind.YesRecorded, Day: { } day }
                ? $"{(Statement.Firm.Length > 0 ? Statement.Firm : "The firm")} recorded a yes that bears the date {PaperLanguage.English.Day(day)}{(fact.Words.Length > 0 ? ": " + fact.Words : "")}"
                : "",
        };

    /// <summary>The signed document: what was sent as it was, with what was agreed and the names under it in the place of its empty lines.</summary>
    /// <param name="sent">The document that was sent.</param>
    /// <param name="moment">How a moment (UTC) is said.</param>
    public Document Signed(Document sent, Func<DateTime, string> moment) =>
        sent with
        {
            Blocks =
            [
                .. sent.Blocks.Where(b => b.Kind != BlockKind.Signatures),
                new(
                    Fact,
                    BlockKind.Signatures,
                    Recorded.Length > 0 ? "Accepted" : "Accepted and signed",
                    true,
                    false,
                    true,
                    WordsOf.Nobody,
                    [],
                    [.. Said(moment)]
                ),
            ],
        };

    /// <summary>The names under it, as they are read.</summary>
    /// <param name="moment">How a moment (UTC) is said.</param>
    public IEnumerable<SignedBy> Under(Func<DateTime, string> moment) =>
        Names.Select(n => new SignedBy(n.ByFirm ? Statement.Firm : Statement.Customer, n.Name, n.Drawn, moment(n.At)));

    private IEnumerable<Element> Said(Func<DateTime, string> moment)
    {
        var said = Statement;
        yield return Writing.Plain(said.Sentence);
        yield return Table(
            [
                .. said.Price.Select(r => Row(RowKind.Part, r)),
                Row(RowKind.Total, new("You pay in all", "with tax", said.Total)),
            ]
        );
        if (!said.Steps.IsEmpty)
            yield return Table(
                [new(RowKind.Group, "Payment", "", null, null), .. said.Steps.Select(r => Row(RowKind.Part, r))]
            );
        if (!said.Offered.IsEmpty)
            yield return Table(
                [
                    new(RowKind.Group, "Offered, and in the price only where it says so", "", null, null),
                    .. said.Offered.Select(r => Row(RowKind.Part, r)),
                ]
            );
        yield return Writing.Plain(Recorded.Length > 0 ? Recorded : said.Declares);
        foreach (var name in Under(moment))
            yield return name;
        yield return Writing.Plain($"SHA-256 of the proposal that was sent, as PDF: {said.Pdf}");
        yield return Writing.Plain($"SHA-256 of what was {(Recorded.Length > 0 ? "agreed" : "signed")}: {said.Hash}");
    }

    private PriceTable Table(ImmutableArray<PriceRow> rows) => new(Statement.Currency, rows);

    private static PriceRow Row(RowKind kind, StatementRow row) =>
        new(kind, row.Label, row.Detail, null, null) { Shown = row.Amount };
}
