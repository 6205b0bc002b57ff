using System.Collections.Immutable;
using System.Text.Json.Serialization;

namespace Emendum.Core.Delivery;

/// <summary>People who work together, or another firm.</summary>
/// <param name="Id">Its id.</param>
/// <param name="Name">Its name.</param>
/// <param name="Size">How many people.</param>
/// <param name="Time">When they work, their own days off with it.</param>
public sealed record Crew(Guid Id, string Name, int Size, WorkingTime Time)
{
    /// <summary>Most crews of a firm.</summary>
    public const int Most = 100;

    /// <summary>Whether it is another firm: the days off of ours are not theirs.</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingDefault)]
    public bool IsOtherFirm { get; init; }

    /// <summary>E-mail address at which it is told of its days; empty for none.</summary>
    public string Mail { get; init; } = "";

    /// <summary>Telephone to which a text message goes where there is no e-mail address; empty for none.</summary>
    public string Phone { get; init; } = "";

    /// <summary>Refuses what is no crew.</summary>
    /// <exception cref="RefusedException">Naming the field.</exception>
    public void Check()
    {
        if (string.IsNullOrWhiteSpace(Name) || Name.Length > HoursFact.MostOfPerson || Name.Any(char.IsControl))
            throw RefusedException.Of("name", $"A crew has a name of at most {HoursFact.MostOfPerson} characters.");
        if (Size is < 1 or > 200)
            throw RefusedException.Of("size", "A crew has 1 to 200 people.");
        if (Mail.Length > 0 && !Proposals.Message.IsAddress(Mail))
            throw RefusedException.Of("mail", "That is not an e-mail address. Write it like name@example.com.");
        if (Phone.Length > 0 && !Proposals.Message.IsNumber(Phone))
            throw RefusedException.Of("phone", "That is not a telephone number. Write it like +353 1 555 0100.");
        Time.Check();
    }
}

/// <summary>The crews of the firm, and when the firm works.</summary>
/// <param name="Firm">The firm's hours and days off: leads run in them, and crews of ours are off then.</param>
/// <param name="All">The crews, and other firms that work for us.</param>
public sealed record Crews(WorkingTime Firm, ImmutableArray<Crew> All)
{
    /// <summary>Name of the setting.</summary>
    public const string Setting = "crews";

    /// <summary>Nobody is known yet.</summary>
    public static readonly Crews Starting = new(WorkingTime.Usual, []);

    /// <summary>Refuses what cannot be.</summary>
    /// <exception cref="RefusedException">Naming the field.</exception>
    public void Check()
    {
        Firm.Check();
        if (All.Length > Crew.Most)
            throw RefusedException.Of("all", $"A firm has at most {Crew.Most} crews.");
        foreach (var crew in All)
            crew.Check();
        if (All.Select(c => c.Id).Distinct().Count() != All.Length)
            throw RefusedException.Of("all", "A crew stands twice.");
        if (All.Select(c => c.Name.Trim()).Distinct(StringComparer.OrdinalIgnoreCase).Count() != All.Length)
            throw RefusedException.Of("name", "There is a crew of that name already.");
    }

    /// <summary>They with the days on which they are off: those of the firm are theirs too, unless they are another firm. Whoever some tasks name and nobody knows, as in a job that came from another house, is one person who works as the firm does.</summary>
    /// <param name="named">Crews that tasks name.</param>
    public ImmutableArray<Crew> For(IEnumerable<Guid> named)
    {
        var known = All.Select(c => c.Id).ToHashSet();
        return
        [
            .. All.Select(c =>
                c.IsOtherFirm ? c : c with { Time = c.Time with { Off = [.. c.Time.Off, .. Firm.Off] } }
            ),
            .. named.Distinct().Where(id => !known.Contains(id)).Order().Select(id => new Crew(id, Unknown, 1, Firm)),
        ];
    }

    /// <summary>What a crew is called that nobody knows any more.</summary>
    public const string Unknown = "somebody not known here";
}
