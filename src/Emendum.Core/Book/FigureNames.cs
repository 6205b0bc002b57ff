namespace Emendum.Core.Book;

/// <summary>A figure that texts may say by its name, in braces: <c>{total}</c>. It follows every edit.</summary>
/// <param name="Name">Its name.</param>
/// <param name="Meaning">What it is, for whoever picks it.</param>
public sealed record FigureName(string Name, string Meaning);

/// <summary>The names of figures in texts; what they come to is <c>Proposals/NamedFigures</c>.</summary>
public static class FigureNames
{
    /// <summary>All of them, in the order in which they are offered.</summary>
    public static readonly IReadOnlyList<FigureName> All =
    [
        new("price", "price before tax"),
        new("tax", "all tax"),
        new("total", "what the customer pays, with tax"),
        new("currency", "currency of the prices"),
        new("deposit", "the first payment step, with tax"),
        new("valid until", "last day on which the prices hold"),
        new("hours", "labour hours"),
        new("days", "working days from first to last"),
        new("crew", "people of the crew"),
        new("a year", "price of a year of the round"),
        new("a month", "price of a month of the round"),
        new("floor area", "floor of all places"),
        new("customer", "name of the customer"),
        new("firm", "name of the firm"),
        new("job", "name of the job"),
        new("number", "number of the job"),
        new("revision", "letter of the revision"),
        new("date", "date of the proposal"),
    ];

    /// <summary>Names in a text, with where each begins and how long it is with its braces. A brace that closes nothing, or that holds a line's end, is a brace.</summary>
    public static IEnumerable<(int At, int Length, string Name)> In(string text)
    {
        for (var at = text.IndexOf('{'); at >= 0; at = text.IndexOf('{', at + 1))
        {
            var end = text.AsSpan(at + 1).IndexOfAny('{', '}', '\n');
            if (end > 0 && text[at + 1 + end] == '}')
                yield return (at, end + 2, text.Substring(at + 1, end).Trim());
        }
    }

    /// <summary>Refuses a text that names a figure which there is not.</summary>
    /// <param name="text">The text.</param>
    /// <param name="field">Its field.</param>
    /// <param name="also">A name that stands for no figure and may be said here all the same.</param>
    /// <exception cref="RefusedException">With where it stands.</exception>
    public static void Check(string text, string field, string also = "")
    {
        foreach (var (at, _, name) in In(text))
            if (name != also && All.All(f => f.Name != name))
                throw new RefusedException(
                    new(
                        field,
                        $"There is no figure “{name}”. Those that there are: {string.Join(", ", All.Select(f => f.Name))}.",
                        at
                    )
                );
    }
}
