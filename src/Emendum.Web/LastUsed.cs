namespace Emendum.Web;

/// <summary>The things that were used last, in memory: what never changes, and takes longer to read than to answer by.</summary>
/// <param name="most">Most that are held.</param>
public sealed class LastUsed<TKey, TValue>(int most)
    where TKey : IEquatable<TKey>
    where TValue : class
{
    private readonly Lock gate = new();
    private readonly LinkedList<(TKey Key, TValue Value)> held = [];

    /// <summary>A thing; read where it is not held. Null, which is not held, where there is none.</summary>
    public TValue? Of(TKey key, Func<TValue?> read)
    {
        lock (gate)
            for (var at = held.First; at is not null; at = at.Next)
                if (at.Value.Key.Equals(key))
                {
                    held.Remove(at);
                    held.AddFirst(at);
                    return at.Value.Value;
                }
        if (read() is not { } found)
            return null;
        lock (gate)
        {
            held.AddFirst((key, found));
            if (held.Count > most)
                held.RemoveLast();
        }
        return found;
    }
}
