using Microsoft.Data.Sqlite;

namespace Emendum.Storage;

/// <summary>
/// A transaction that writes. SQLite lets one write at a time, and the library asks again only every 150 ms when another does: here whoever wants to write waits until the one before has ended. Other programs are still waited for
/// as the library does it.
/// </summary>
public sealed class Writing : IDisposable
{
    private readonly Lock gate;
    private readonly SqliteTransaction transaction;

    internal Writing(Lock gate, Func<SqliteConnection> connect)
    {
        this.gate = gate;
        gate.Enter();
        try
        {
            Connection = connect();
            transaction = Connection.BeginTransaction();
        }
        catch
        {
            Connection?.Dispose();
            gate.Exit();
            throw;
        }
    }

    /// <summary>The connection that writes.</summary>
    public SqliteConnection Connection { get; }

    /// <summary>Keeps what was written: it is on disk when this returns. Without it nothing is kept.</summary>
    public void Commit() => transaction.Commit();

    /// <inheritdoc/>
    public void Dispose()
    {
        transaction.Dispose();
        Connection.Dispose();
        gate.Exit();
    }
}
