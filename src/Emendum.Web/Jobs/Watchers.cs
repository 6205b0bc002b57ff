using System.Collections.Immutable;

namespace Emendum.Web.Jobs;

/// <summary>Which windows are open, and which job each shows.</summary>
public sealed class Watchers
{
    private readonly Lock gate = new();
    private readonly Dictionary<string, (Guid Job, Guid Client)> connections = [];

    /// <summary>A connection shows a job from now on, and no other.</summary>
    public void Watch(string connection, Guid job, Guid client)
    {
        lock (gate)
            connections[connection] = (job, client);
    }

    /// <summary>A connection has ended.</summary>
    public void Gone(string connection)
    {
        lock (gate)
            connections.Remove(connection);
    }

    /// <summary>The job that a connection shows.</summary>
    public Guid? JobOf(string connection)
    {
        lock (gate)
            return connections.TryGetValue(connection, out var shows) ? shows.Job : null;
    }

    /// <summary>Whether a window is open.</summary>
    public bool IsOpen(Guid client)
    {
        lock (gate)
            return connections.Values.Any(c => c.Client == client);
    }

    /// <summary>Whether some window shows a job.</summary>
    public bool IsShown(Guid job)
    {
        lock (gate)
            return connections.Values.Any(c => c.Job == job);
    }

    /// <summary>The connections of a window.</summary>
    public ImmutableArray<string> Of(Guid client)
    {
        lock (gate)
            return [.. connections.Where(c => c.Value.Client == client).Select(c => c.Key)];
    }
}
