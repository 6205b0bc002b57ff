using System.Text.Json;
using Emendum.Core.Jobs;

namespace Emendum.Web.Jobs;

/// <summary>What everything that edits a job comes with (architecture decision 28).</summary>
/// <param name="Id">UUIDv7, made by the sender: the same again is done once.</param>
/// <param name="Base">The version that the sender holds; the answer says what has changed since.</param>
/// <param name="Client">Id of the window it is sent from: undo goes by it.</param>
public abstract record Sent(Guid Id, long Base, Guid Client);

/// <summary>A command on its way.</summary>
public sealed record SentCommand(Guid Id, long Base, Guid Client, Command Command) : Sent(Id, Base, Client);

/// <summary>An undo on its way.</summary>
/// <param name="Id">Its id.</param>
/// <param name="Base">The version held.</param>
/// <param name="Client">The window.</param>
/// <param name="LeftBehind">Version of the edit to be taken back that was made in a window which is closed; null for this window's last.</param>
public sealed record SentUndo(Guid Id, long Base, Guid Client, long? LeftBehind) : Sent(Id, Base, Client);

/// <summary>A redo on its way.</summary>
public sealed record SentRedo(Guid Id, long Base, Guid Client) : Sent(Id, Base, Client);

/// <summary>An entry of a job changed inside it: as it was seen, and as it is to be.</summary>
public sealed record SaveInJob(Guid Id, long Base, Guid Client, JsonElement Was, JsonElement Entry)
    : Sent(Id, Base, Client);

/// <summary>An entry of a job to be kept in the Book, as a work item uses it where one is named.</summary>
/// <param name="Id">Id of the command by which the job then takes it.</param>
/// <param name="Base">The version held.</param>
/// <param name="Client">The window.</param>
/// <param name="Was">Version of the Book's entry that was seen; 0 for none.</param>
/// <param name="Work">A work item whose own settings are kept with it.</param>
public sealed record KeepInBook(Guid Id, long Base, Guid Client, int Was, Guid? Work) : Sent(Id, Base, Client);
