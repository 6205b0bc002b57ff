using System.Collections.Immutable;

namespace Emendum.Core.Proposals;

/// <summary>What became of words.</summary>
public enum WordChange
{
    Stayed,
    Went,
    Came,
}

/// <summary>Words in a row that all stayed, went or came.</summary>
public sealed record WordRun(WordChange Change, string Text)
{
    /// <summary>Most words on a side that are compared word by word; longer texts are replaced as wholes.</summary>
    public const int Most = 2_000;

    /// <summary>One text against another, word by word, by a longest common row of words. Without what went it is the later text, without what came the earlier.</summary>
    public static ImmutableArray<WordRun> Between(string before, string after)
    {
        var (a, b) = (Words(before), Words(after));
        if (a.Count > Most || b.Count > Most)
            return [new(WordChange.Went, before), new(WordChange.Came, after)];
        // Lengths of the longest common rows of what is left from each place on.
        var common = new int[a.Count + 1, b.Count + 1];
        for (var i = a.Count - 1; i >= 0; i--)
        for (var j = b.Count - 1; j >= 0; j--)
            common[i, j] = a[i] == b[j] ? common[i + 1, j + 1] + 1 : Math.Max(common[i + 1, j], common[i, j + 1]);
        var runs = ImmutableArray.CreateBuilder<WordRun>();
        void Add(WordChange change, string word)
        {
            if (runs.Count > 0 && runs[^1].Change == change)
                runs[^1] = new(change, runs[^1].Text + word);
            else
                runs.Add(new(change, word));
        }
        var (x, y) = (0, 0);
        while (x < a.Count || y < b.Count)
        {
            if (x < a.Count && y < b.Count && a[x] == b[y])
            {
                Add(WordChange.Stayed, a[x++]);
                y++;
            }
            else if (y == b.Count || (x < a.Count && common[x + 1, y] >= common[x, y + 1]))
                Add(WordChange.Went, a[x++]);
            else
                Add(WordChange.Came, b[y++]);
        }
        return runs.ToImmutable();
    }

    /// <summary>Words, each with the white space after it.</summary>
    private static List<string> Words(string text)
    {
        var words = new List<string>();
        for (var from = 0; from < text.Length; )
        {
            var to = from;
            while (to < text.Length && !char.IsWhiteSpace(text[to]))
                to++;
            while (to < text.Length && char.IsWhiteSpace(text[to]))
                to++;
            words.Add(text[from..to]);
            from = to;
        }
        return words;
    }
}
